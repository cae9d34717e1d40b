import { Line } from '../document/index.ts'
import { z } from 'zod'
import { PlainDate, weekdays } from './plainDate.ts'
import { TimeZone } from './timeZone.ts'

const Name = Line(200)

export const DateRange = z
  .strictObject({ name: Name, first: PlainDate, last: PlainDate })
  .refine((range) => range.first <= range.last, 'a first day that is not after the last day')

export const Session = z
  .strictObject({ code: Line(60), title: Name, firstDay: PlainDate, lastDay: PlainDate })
  .refine((session) => session.firstDay <= session.lastDay, 'a firstDay that is not after lastDay')

/** A named stretch of dates in which courses run. */
export const Term = z
  .strictObject({
    code: Line(60).describe('Stable short code, e.g. autumn-2026'),
    title: Name,
    timeZone: TimeZone.describe('IANA time zone; every date of the term is read in it'),
    firstDay: PlainDate.describe('Opening day'),
    lastDay: PlainDate.describe('Last day of class'),
    weekStartsOn: z.enum(weekdays).default('monday'),
    breaks: z.array(DateRange).default([]).describe('Stretches without class'),
    breakWeeksCount: z
      .boolean()
      .default(true)
      .describe('Whether a week wholly in a break has a number of its own'),
    preparatoryWeek: z
      .boolean()
      .default(false)
      .describe('Whether a week 0 stands before the first week, to prepare in'),
    shortFirstWeek: z.enum(['counts', 'joins-next', 'is-week-0']).default('counts'),
    shortLastWeek: z.enum(['counts', 'joins-previous']).default('counts'),
    holidays: z.array(z.strictObject({ name: Name, date: PlainDate })).default([]),
    otherDates: z.array(z.strictObject({ name: Name, date: PlainDate })).default([]),
    sessions: z
      .array(Session)
      .default([])
      .describe('Shorter stretches inside the term, for courses of fewer weeks'),
  })
  .refine((term) => term.firstDay <= term.lastDay, {
    message: 'a firstDay that is not after lastDay',
    path: ['firstDay'],
  })
  .refine(
    (term) =>
      new Date(term.lastDay).getTime() - new Date(term.firstDay).getTime() < 400 * 86_400_000,
    { message: 'a term of at most 400 days', path: ['lastDay'] },
  )
export type Term = z.output<typeof Term>

/** Free days that a calendar file brings for a stretch of dates. */
export const FreeDays = z.strictObject({
  holidays: Term.shape['holidays'],
  breaks: Term.shape['breaks'],

  /** Events that are no whole days, or lie outside the stretch: left out, and counted. */
  leftOut: z.number(),
})
export type FreeDays = z.output<typeof FreeDays>

/** A term and the one after it as one stretch, for a course that spans two; the term itself without a second. */
export const spanningTerm = (term: Term, nextTerm: Term | undefined): Term =>
  nextTerm === undefined
    ? term
    : {
        ...term,
        lastDay: nextTerm.lastDay,
        breaks: [...term.breaks, ...nextTerm.breaks],
        holidays: [...term.holidays, ...nextTerm.holidays],
        otherDates: [...term.otherDates, ...nextTerm.otherDates],
      }
