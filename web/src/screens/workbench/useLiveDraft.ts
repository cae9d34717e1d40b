import { useEffect } from 'react'
import type { TemplateDraft } from '@wickerframe/contract'
import { useDraftStore } from './draftStore.ts'

const lookEveryMilliseconds = 4000

/** Opens a draft that was loaded, looks now and then what others do to it, and asks before what is not saved is left. */
export const useLiveDraft = (loaded: TemplateDraft | undefined): void => {
  const open = useDraftStore((store) => store.open)
  const look = useDraftStore((store) => store.look)
  const unsaved = useDraftStore((store) => store.waiting.length > 0)
  useEffect(() => {
    if (loaded) open(loaded)
  }, [loaded, open])
  useEffect(() => {
    const timer = setInterval(() => {
      if (document.visibilityState === 'visible') void look().catch(() => undefined)
    }, lookEveryMilliseconds)
    return () => clearInterval(timer)
  }, [look])
  useEffect(() => {
    if (!unsaved) return
    const stay = (event: BeforeUnloadEvent) => event.preventDefault()
    window.addEventListener('beforeunload', stay)
    return () => window.removeEventListener('beforeunload', stay)
  }, [unsaved])
}
