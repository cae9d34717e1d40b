const attendedMilliseconds = 10 * 60_000

let lastSign = Date.now()
for (const sign of ['pointermove', 'pointerdown', 'keydown', 'focus'] as const)
  window.addEventListener(sign, () => (lastSign = Date.now()), { passive: true })

/**
 * Whether somebody seems to look: the page is seen, and was touched in the last ten minutes. What is asked without them would
 * otherwise keep a session open at a desk that everybody has left.
 */
export const isAttended = (): boolean =>
  document.visibilityState === 'visible' && Date.now() - lastSign < attendedMilliseconds
