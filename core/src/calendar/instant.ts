import { IANAZone } from 'luxon'

const millisecondsPerMinute = 60_000

/** UTC time, in milliseconds, that the wall clock would show if the zone were UTC. */
const wallClock = (date: string, time: string): number =>
  Date.UTC(
    Number(date.slice(0, 4)),
    Number(date.slice(5, 7)) - 1,
    Number(date.slice(8, 10)),
    Number(time.slice(0, 2)),
    Number(time.slice(3, 5)),
  )

/**
 * The instant of a local date and time in an IANA time zone, as an ISO 8601 string in UTC (`2026-11-01T04:30:00Z`).
 * A local time that a clock change skips takes the offset in force before the gap; one that occurs twice means the
 * first (RFC 5545, section 3.3.5).
 * @param date `YYYY-MM-DD`
 * @param time `HH:MM`, 24-hour
 */
export const instantOf = (date: string, time: string, timeZone: string): string => {
  const zone = IANAZone.create(timeZone)
  const wall = wallClock(date, time)
  // The offsets a day before and a day after bracket any change; the earlier one decides gaps and doubled times.
  const before = wall - zone.offset(wall - 86_400_000) * millisecondsPerMinute
  const after = wall - zone.offset(wall + 86_400_000) * millisecondsPerMinute
  const holds = (instant: number) => instant + zone.offset(instant) * millisecondsPerMinute === wall
  const instant = holds(before) ? before : holds(after) ? after : before
  return new Date(instant).toISOString().replace('.000Z', 'Z')
}

/** The local date `YYYY-MM-DD` of an instant in an IANA time zone. */
export const localDateOf = (instant: string, timeZone: string): string => {
  const at = Date.parse(instant)
  return new Date(at + IANAZone.create(timeZone).offset(at) * millisecondsPerMinute).toISOString().slice(0, 10)
}

/** The local time `HH:MM` of an instant in an IANA time zone. */
export const localTimeOf = (instant: string, timeZone: string): string => {
  const at = Date.parse(instant)
  return new Date(at + IANAZone.create(timeZone).offset(at) * millisecondsPerMinute).toISOString().slice(11, 16)
}
