/**
 * What a task came to. `later` is tried again a number of times, `waits` as often as it takes; `failed` waits for a person.
 * Without seconds it is tried again after longer each time.
 */
export type TaskOutcome =
  | { state: 'done' }
  | { state: 'lost-lease' }
  | { state: 'held'; message: string }
  | { state: 'failed'; message: string }
  | { state: 'waits'; message: string; afterSeconds: number | null }
  | { state: 'later'; message: string; afterSeconds: number | null; fateUnknown: boolean }

export const failed = (message: string): TaskOutcome => ({ state: 'failed', message })
export const later = (message: string, afterSeconds: number | null = null): TaskOutcome => ({
  state: 'later',
  message,
  afterSeconds,
  fateUnknown: false,
})

/** Nothing is wrong with the task, but something else is to end first: it is looked at again, and that is no attempt. */
export const waits = (message: string, afterSeconds: number | null): TaskOutcome => ({
  state: 'waits',
  message,
  afterSeconds,
})

/** An answer was lost: what was sent may have been done, and is asked for under its key until that is known. */
export const fateUnknown = (message: string): TaskOutcome => ({
  state: 'later',
  message,
  afterSeconds: null,
  fateUnknown: true,
})

/** Thrown inside a transaction when the lease turns out to be lost, so that nothing of it is kept. */
export class LostLease extends Error {}
