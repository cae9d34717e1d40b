import { localDateOf } from '@wickerframe/core'

declare const institution: unique symbol
/** A day, `YYYY-MM-DD`, by the institution's clock. */
export type InstitutionDay = string & { readonly [institution]: 'day' }
/** An instant, ISO 8601 in UTC, by the institution's clock: what people are shown is stamped with it. */
export type InstitutionInstant = string & { readonly [institution]: 'instant' }

/**
 * The institution's clock: as-of days, due dates and every stamp that is shown. It reads the institution's time zone, and a
 * demonstration moves it. What counts time for the program itself (leases, sessions, throttling, retries) reads the
 * machine's clock, which nobody moves.
 */
export interface InstitutionClock {
  today: () => InstitutionDay
  now: () => InstitutionInstant
  /** The institution’s. */
  timeZone: string
}

export const institutionClock = (timeZone: string, offsetSeconds: number): InstitutionClock => {
  const now = () => new Date(Date.now() + offsetSeconds * 1000).toISOString() as InstitutionInstant
  return { timeZone, now, today: () => localDateOf(now(), timeZone) as InstitutionDay }
}
