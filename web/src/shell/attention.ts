const attendedMilliseconds = 10 * 60_000

let lastSign = 0
let isWatching = false
const seen = (): void => {
  lastSign = Date.now()
}

/** From now on it is noticed when somebody touches the page. */
export const watchAttention = (): void => {
  seen()
  if (isWatching) return
  isWatching = true
  for (const sign of ['pointermove', 'pointerdown', 'keydown', 'focus'] as const)
    window.addEventListener(sign, seen, { passive: true })
}

/**
 * Whether somebody seems to look: the page is seen, and was touched in the last ten minutes. What is asked without them would
 * otherwise keep a session open at a desk that everybody has left.
 */
export const isAttended = (): boolean =>
  document.visibilityState === 'visible' && Date.now() - lastSign < attendedMilliseconds
