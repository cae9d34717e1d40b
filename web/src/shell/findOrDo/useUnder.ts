import { useCallback, useEffect, useRef, useState } from 'react'
import { actsOnScreen, type ActOnScreen } from './actsOnScreen.ts'

/** What the box stands over: what had the focus, what had it last on the screen itself, and what could be done there. */
export interface Under {
  focus: HTMLElement | null
  stood: HTMLElement | null
  acts: ActOnScreen[]
}

const mainOf = () => document.getElementById('main')

/** What the box stands over once it is opened, read before it takes the focus; null while it is closed. */
export const useUnder = () => {
  const [over, setOver] = useState<Under | null>(null)
  const stood = useRef<HTMLElement | null>(null)
  useEffect(() => {
    const keep = ({ target }: FocusEvent) => {
      if (target instanceof HTMLElement && mainOf()?.contains(target)) stood.current = target
    }
    document.addEventListener('focusin', keep)
    return () => document.removeEventListener('focusin', keep)
  }, [])
  const open = useCallback(() => {
    const main = mainOf()
    setOver({
      focus: document.activeElement instanceof HTMLElement ? document.activeElement : null,
      stood: stood.current,
      acts: main ? actsOnScreen(main) : [],
    })
  }, [])
  const close = useCallback(() => setOver(null), [])
  return { over, open, close }
}
