import { z } from 'zod'
import { availabilityWindow, type Availability } from './availability.ts'
import { classDaysOf, halvesOf } from './classDays.ts'
import { isoWeekOf } from './isoWeek.ts'
import { PlainDate, type Weekday } from './plainDate.ts'
import { spanningTerm, Term } from './term.ts'
import { unitStretches, type Unit } from './units.ts'
import { instructionalWeeks } from './weeks.ts'

/** A term as a document of its own. */
export const TermDocument = Term.safeExtend({ schema: z.literal('wickerframe.term/1').optional() })
export type TermDocument = z.output<typeof TermDocument>

const Instant = z.iso.datetime()
/** A term worked out: its weeks, units and class days. Dates are in the term's time zone, both ends included. */
export const CalendarDocument = z.strictObject({
  schema: z.literal('wickerframe.calendar/1'),
  term: z.strictObject({
    code: z.string(),
    title: z.string(),
    timeZone: z.string(),
    firstDay: PlainDate,
    lastDay: PlainDate,
  }),
  weeks: z.array(
    z.strictObject({
      number: z.number().int(),
      first: PlainDate,
      last: PlainDate,
      breakName: z.string().nullable().describe('Name of the break when no class day is left'),
      interruptedBy: z
        .string()
        .nullable()
        .describe('Name of a break or holiday that takes some of its days'),
      isoWeek: z
        .strictObject({ year: z.number().int(), week: z.number().int() })
        .describe('ISO 8601 week of its first day'),
      classDays: z.array(PlainDate),
      halves: z
        .array(z.strictObject({ half: z.enum(['A', 'B']), first: PlainDate, last: PlainDate }))
        .describe('For a class that meets twice a week'),
    }),
  ),
  units: z.array(
    z.strictObject({
      number: z.number().int(),
      title: z.string().nullable(),
      first: PlainDate,
      last: PlainDate,
      weeks: z.array(z.number().int()),
      classDays: z.array(PlainDate),
      hasWeekLevel: z.boolean(),
    }),
  ),
  days: z
    .array(
      z.strictObject({
        number: z.number().int(),
        date: PlainDate,
        week: z.number().int(),
        ofWeek: z.number().int(),
      }),
    )
    .describe('Class days, numbered through the course'),
  opensAt: Instant.nullable().describe('When students first reach a course of this calendar'),
  closesAt: Instant.nullable().describe('Until when they do'),
})
export type CalendarDocument = z.output<typeof CalendarDocument>

export interface CalendarRequest {
  term: Term
  nextTerm?: Term | undefined
  session?: string | undefined
  count?: number | undefined
  units: (weeks: ReturnType<typeof instructionalWeeks>) => Unit[]
  meetingDays: readonly Weekday[]
  availability: Availability
}

/** Works a term out as a document. @throws RangeError when the session is not one of the term's */
export const calendarDocument = ({
  term: firstTerm,
  nextTerm,
  session,
  count,
  units,
  meetingDays,
  availability,
}: CalendarRequest): CalendarDocument => {
  const weeks = instructionalWeeks({ term: firstTerm, nextTerm, session, count })
  const term = spanningTerm(firstTerm, nextTerm)
  const days = weeks.flatMap((week) => classDaysOf(week, term, meetingDays))
  const window = availabilityWindow(weeks, term.timeZone, availability)
  const { code, title, timeZone, firstDay, lastDay } = term
  return {
    schema: 'wickerframe.calendar/1',
    term: { code, title, timeZone, firstDay, lastDay },
    weeks: weeks.map((week) => ({
      ...week,
      isoWeek: isoWeekOf(week.first),
      classDays: classDaysOf(week, term, meetingDays).map((day) => day.date),
      halves: halvesOf(week, term, meetingDays),
    })),
    units: unitStretches(units(weeks), weeks, term, meetingDays).map(
      ({ days: inside, weeks: covered, ...unit }) => ({
        ...unit,
        weeks: covered.map((week) => week.number),
        classDays: inside.map((day) => day.date),
      }),
    ),
    days: days.map((day, i) => ({ number: i + 1, ...day })),
    opensAt: window?.opensAt ?? null,
    closesAt: window?.closesAt ?? null,
  }
}
