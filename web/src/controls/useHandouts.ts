import { useState } from 'react'
import { keepFiles, type TakenFiles } from './handouts.ts'

const nothing = { wrong: [], remarks: [] }

/** Brings files in, and says how it goes: which is on its way, what could not be taken, what is worth knowing. */
export const useHandouts = (onKept: (kept: TakenFiles['kept']) => void) => {
  const [sending, setSending] = useState<string | null>(null)
  const [told, setTold] = useState<Pick<TakenFiles, 'wrong' | 'remarks'>>(nothing)
  return {
    /** Name of the file that is on its way; null: none is. */
    sending,
    ...told,
    take: async (files: readonly File[]): Promise<void> => {
      setTold(nothing)
      const { kept, ...others } = await keepFiles(files, setSending).finally(() => setSending(null))
      setTold(others)
      if (kept.length > 0) onKept(kept)
    },
    forget: () => setTold(nothing),
  }
}
