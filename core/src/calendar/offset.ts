import { z } from 'zod'
import { classDaysOf } from './classDays.ts'
import { addDays, weekdayIndex, weekdays, type Weekday } from './plainDate.ts'
import { instantOf } from './instant.ts'
import type { Week } from './weeks.ts'
import type { Term } from './term.ts'

/** A point in time told relative to the calendar: "day 5 of its week at 23:59", "3 days before the first day". */
export const Offset = z
  .strictObject({
    from: z
      .enum([
        'week-start',
        'week-end',
        'weekday',
        'class-day',
        'term-start',
        'term-end',
        'named-date',
      ])
      .describe('What the days are counted from'),
    week: z
      .number()
      .int()
      .min(0)
      .max(60)
      .optional()
      .describe("A week's number; without it, the part's own week"),
    weekday: z.enum(weekdays).optional().describe('Which day of the week, for from: weekday'),
    classDay: z
      .number()
      .int()
      .min(1)
      .max(7)
      .optional()
      .describe('Which class day of the week, for from: class-day; the first without it'),
    name: z
      .string()
      .min(1)
      .max(200)
      .optional()
      .describe("Name of one of the term's other dates, for from: named-date"),
    days: z.number().int().min(-366).max(366).default(0),
    time: z
      .string()
      .regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'a time written HH:MM, 00:00 to 23:59')
      .default('00:00'),
  })
  .refine((offset) => offset.from !== 'named-date' || offset.name !== undefined, {
    message: 'name, when from is named-date',
    path: ['name'],
  })
  .refine((offset) => offset.from !== 'weekday' || offset.weekday !== undefined, {
    message: 'weekday, when from is weekday',
    path: ['weekday'],
  })
  .describe(
    'Day 1 of a week is its week-start with days 0. A day of a week that is shorter than that is its last',
  )
export type Offset = z.output<typeof Offset>

/**
 * A weekday of a week: of its last seven days where it is a stretch of several. A day that a short week does not reach is the
 * nearest that it has.
 */
const weekdayIn = (week: Week, weekday: Weekday, { weekStartsOn }: Term): string => {
  const begins = weekdays.indexOf(weekStartsOn)
  const first = addDays(week.last, -((weekdayIndex(week.last) - begins + 7) % 7))
  const day = addDays(first, (weekdays.indexOf(weekday) - begins + 7) % 7)
  return day < week.first ? week.first : day > week.last ? week.last : day
}

const daysOfWeek = 7

const weekOf = (offset: Offset, own: Week | null, weeks: readonly Week[]): Week | null =>
  offset.week === undefined ? own : (weeks.find((week) => week.number === offset.week) ?? null)

/** The day `YYYY-MM-DD` that the days of an offset are counted from; null when it is not in this calendar. */
const anchorOf = (
  offset: Offset,
  own: Week | null,
  weeks: readonly Week[],
  term: Term,
  meetingDays: readonly Weekday[],
): string | null => {
  const week = weekOf(offset, own, weeks)
  switch (offset.from) {
    case 'term-start':
      return weeks.find((week) => week.number > 0)?.first ?? term.firstDay
    case 'term-end':
      return weeks.at(-1)?.last ?? term.lastDay
    case 'week-start':
      return week?.first ?? null
    case 'week-end':
      return week?.last ?? null
    case 'weekday':
      return week && offset.weekday ? weekdayIn(week, offset.weekday, term) : null
    case 'class-day':
      return week === null
        ? null
        : (classDaysOf(week, term, meetingDays)[(offset.classDay ?? 1) - 1]?.date ?? null)
    case 'named-date':
      return term.otherDates.find((date) => date.name === offset.name)?.date ?? null
  }
}

/**
 * The instant (ISO 8601, UTC) an offset means, in the term's time zone.
 * @param own the week the part stands in, or null outside the weeks
 * @param meetingDays on which the course meets; Monday to Friday without any
 * @returns null when the offset speaks of a week, class day or date that is not there
 */
export const resolveOffset = (
  offset: Offset,
  own: Week | null,
  weeks: readonly Week[],
  term: Term,
  meetingDays: readonly Weekday[] = [],
): string | null => {
  const anchor = anchorOf(offset, own, weeks, term, meetingDays)
  if (anchor === null) return null
  const day = addDays(anchor, offset.days)
  const last =
    offset.from === 'week-start' && offset.days >= 0 && offset.days < daysOfWeek
      ? weekOf(offset, own, weeks)?.last
      : undefined
  return instantOf(last !== undefined && day > last ? last : day, offset.time, term.timeZone)
}
