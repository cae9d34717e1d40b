import type { Logger } from 'pino'

/** Does something every so often, never twice at once: what takes longer than that is done again when its time comes anew. */
export const nowAndThen = (
  what: string,
  milliseconds: number,
  work: () => Promise<void>,
  log: Pick<Logger, 'warn'>,
): { stop: () => Promise<void> } => {
  let underWay: Promise<void> | null = null
  const timer = setInterval(() => {
    underWay ??= work()
      .catch((cause: unknown) => log.warn({ err: cause }, what))
      .finally(() => (underWay = null))
  }, milliseconds)
  return {
    /** What is under way is waited for. */
    stop: async () => {
      clearInterval(timer)
      await underWay
    },
  }
}
