import { IANAZone } from 'luxon'
import { remember } from '../remember/index.ts'

const millisecondsPerMinute = 60_000

const quarterHour = 900_000
const mostKept = 50_000
const keptOffsets = new Map<string, Map<number, number>>()

/** Minutes a zone is ahead of UTC at an instant. Kept by the quarter of an hour, in which no zone has ever changed twice. */
const offsetAt = (timeZone: string, at: number): number => {
  let offsets = keptOffsets.get(timeZone)
  if (!offsets) keptOffsets.set(timeZone, (offsets = new Map()))
  const quarter = Math.floor(at / quarterHour)
  let offset = offsets.get(quarter)
  if (offset === undefined) {
    offset = IANAZone.create(timeZone).offset(at)
    if (offsets.size >= mostKept) offsets.clear()
    offsets.set(quarter, offset)
  }
  return offset
}

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
export const instantOf = (date: string, time: string, timeZone: string): string =>
  instantsIn(timeZone)(`${date} ${time}`)

const instantsIn = remember(100, (timeZone: string) =>
  remember(mostKept, (at: string): string => instantAt(at.slice(0, 10), at.slice(11), timeZone)),
)

const instantAt = (date: string, time: string, timeZone: string): string => {
  const wall = wallClock(date, time)
  // The offsets a day before and a day after bracket any change; the earlier one decides gaps and doubled times.
  const before = wall - offsetAt(timeZone, wall - 86_400_000) * millisecondsPerMinute
  const after = wall - offsetAt(timeZone, wall + 86_400_000) * millisecondsPerMinute
  const holds = (instant: number) =>
    instant + offsetAt(timeZone, instant) * millisecondsPerMinute === wall
  const instant = holds(before) ? before : holds(after) ? after : before
  return new Date(instant).toISOString().replace('.000Z', 'Z')
}

const datesIn = remember(100, (timeZone: string) =>
  remember(mostKept, (instant: string): string => {
    const at = Date.parse(instant)
    return new Date(at + offsetAt(timeZone, at) * millisecondsPerMinute).toISOString().slice(0, 10)
  }),
)

/** The local date `YYYY-MM-DD` of an instant in an IANA time zone. */
export const localDateOf = (instant: string, timeZone: string): string => datesIn(timeZone)(instant)

/** The local time `HH:MM` of an instant in an IANA time zone. */
export const localTimeOf = (instant: string, timeZone: string): string => {
  const at = Date.parse(instant)
  return new Date(at + offsetAt(timeZone, at) * millisecondsPerMinute).toISOString().slice(11, 16)
}
