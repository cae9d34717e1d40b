import { useState, type ReactNode } from 'react'
import { Button } from '../../controls/controls.tsx'
import { useDraftStore } from './draftStore.ts'

type Step = ReturnType<typeof useDraftStore.getState>['done'][number]

/**
 * Says what was just done, with the press that takes it back, for as long as it is the last thing that was done.
 * @param onTakenBack told after it was taken back
 */
export const useSaid = (
  onTakenBack?: () => void,
): { said: ReactNode; say: (words: string) => void } => {
  const last = useDraftStore((store) => store.done.at(-1))
  const undo = useDraftStore((store) => store.undo)
  const [done, setDone] = useState<{ words: string; step: Step | undefined } | null>(null)
  return {
    say: (words) => setDone({ words, step: useDraftStore.getState().done.at(-1) }),
    said: done !== null && done.step !== undefined && done.step === last && (
      <p role="status" className="my-1 border-l-4 border-slate bg-band px-3 py-1">
        {done.words}{' '}
        <Button
          shape="word"
          onClick={() => {
            undo()
            setDone(null)
            onTakenBack?.()
          }}
        >
          undo
        </Button>
      </p>
    ),
  }
}
