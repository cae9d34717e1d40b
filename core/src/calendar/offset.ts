import { z } from 'zod'
import { addDays } from './plainDate.ts'
import { instantOf } from './instant.ts'
import type { Week } from './weeks.ts'
import type { Term } from './term.ts'

/** A point in time told relative to the calendar: "day 5 of its week at 23:59", "3 days before the first day". */
export const Offset = z
  .strictObject({
    from: z.enum(['week-start', 'week-end', 'term-start', 'term-end']).describe('What the days are counted from'),
    week: z.number().int().min(0).max(60).optional().describe("A week's number; without it, the part's own week"),
    days: z.number().int().min(-366).max(366).default(0),
    time: z
      .string()
      .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time written HH:MM, 00:00 to 23:59')
      .default('00:00'),
  })
  .describe('Day 1 of a week is its week-start with days 0')
export type Offset = z.output<typeof Offset>

/**
 * The instant (ISO 8601, UTC) an offset means.
 * @param own the week the part stands in, or null outside the weeks
 * @returns null when the offset speaks of a week that is not there
 */
export const resolveOffset = (offset: Offset, own: Week | null, weeks: readonly Week[], term: Term): string | null => {
  const week = offset.week === undefined ? own : (weeks.find((one) => one.number === offset.week) ?? null)
  const anchor = {
    'term-start': weeks[0]?.first ?? term.firstDay,
    'term-end': weeks.at(-1)?.last ?? term.lastDay,
    'week-start': week?.first,
    'week-end': week?.last,
  }[offset.from]
  return anchor === undefined ? null : instantOf(addDays(anchor, offset.days), offset.time, term.timeZone)
}
