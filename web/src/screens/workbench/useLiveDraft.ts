import { useEffect } from 'react'
import type { TemplateDraft } from '@wickerframe/contract'
import { useDraftStore } from './draftStore.ts'

const lookEveryMilliseconds = 4000

// Wherever somebody went meanwhile, what is not saved is not closed without a question.
window.addEventListener('beforeunload', (event) => {
  if (useDraftStore.getState().isUnsaved()) event.preventDefault()
})

/** Opens a draft that was loaded, and looks now and then what others do to it. */
export const useLiveDraft = (loaded: TemplateDraft | undefined): void => {
  const open = useDraftStore((store) => store.open)
  const look = useDraftStore((store) => store.look)
  useEffect(() => {
    if (loaded) open(loaded)
  }, [loaded, open])
  useEffect(() => {
    const timer = setInterval(() => {
      if (document.visibilityState === 'visible') void look().catch(() => undefined)
    }, lookEveryMilliseconds)
    return () => clearInterval(timer)
  }, [look])
}
