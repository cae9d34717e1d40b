import { addressOf } from './client.ts'

const againMilliseconds = 5000

/**
 * Tells whenever something of a run changed. A browser asks again for a stream that broke off, but not for one that was refused
 * or answered by somebody in between: then it is looked at, and asked for again, every few seconds.
 * @returns what ends it
 */
export const followRun = (run: number, changed: () => void): (() => void) => {
  let stream: EventSource
  let later: ReturnType<typeof setTimeout> | undefined
  const follow = () => {
    const asked = (stream = new EventSource(addressOf('followRun', { at: { run } })))
    asked.addEventListener('changed', changed)
    asked.addEventListener('error', () => {
      if (asked.readyState !== EventSource.CLOSED) return
      changed()
      later = setTimeout(follow, againMilliseconds)
    })
  }
  follow()
  return () => {
    clearTimeout(later)
    stream.close()
  }
}
