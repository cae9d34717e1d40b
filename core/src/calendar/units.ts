import { Line } from '../document/index.ts'
import { z } from 'zod'
import { classDaysOf, type ClassDay } from './classDays.ts'
import { PlainDate, type Weekday } from './plainDate.ts'
import type { Term } from './term.ts'
import type { Week } from './weeks.ts'

const weekNumber = z.number().int().min(0).max(60)

/** A longer stretch of a course, and which weeks or days it covers: somebody's decision, kept with the course. */
export const Unit = z
  .strictObject({
    number: z.number().int().min(1).max(60),
    firstWeek: weekNumber.optional(),
    lastWeek: weekNumber.optional(),
    firstDay: PlainDate.optional(),
    lastDay: PlainDate.optional(),
    title: Line(200, 0).optional(),
  })
  .superRefine((unit, context) => {
    const { firstWeek, lastWeek, firstDay, lastDay } = unit
    const byWeeks =
      firstWeek !== undefined &&
      lastWeek !== undefined &&
      firstDay === undefined &&
      lastDay === undefined
    const byDays =
      firstDay !== undefined &&
      lastDay !== undefined &&
      firstWeek === undefined &&
      lastWeek === undefined
    if (!byWeeks && !byDays)
      context.addIssue({
        code: 'custom',
        message: 'firstWeek and lastWeek, or firstDay and lastDay',
      })
    if (byWeeks && firstWeek > lastWeek)
      context.addIssue({
        code: 'custom',
        path: ['firstWeek'],
        message: 'a firstWeek that is not after lastWeek',
      })
    if (byDays && firstDay > lastDay)
      context.addIssue({
        code: 'custom',
        path: ['firstDay'],
        message: 'a firstDay that is not after lastDay',
      })
  })
export type Unit = z.output<typeof Unit>

/** Weeks dealt out to units as evenly as they go, earlier units taking what is over. */
export const evenUnits = (weeks: readonly Week[], count: number): Unit[] => {
  const dealt = weeks.filter((week) => week.number > 0)
  const least = Math.floor(dealt.length / count)
  const over = dealt.length % count
  const units: Unit[] = []
  let next = 0
  for (let number = 1; number <= count && next < dealt.length; number++) {
    const length = least + (number <= over ? 1 : 0)
    const first = dealt[next]
    const last = dealt[next + length - 1]
    if (first && last) units.push({ number, firstWeek: first.number, lastWeek: last.number })
    next += length
  }
  return units
}

/** The weeks a unit covers; where it is given by days, the weeks it touches, clipped to those days. */
export const weeksOfUnit = (unit: Unit, weeks: readonly Week[]): Week[] => {
  const { firstWeek, lastWeek, firstDay, lastDay } = unit
  if (firstDay !== undefined && lastDay !== undefined)
    return weeks
      .filter((week) => week.last >= firstDay && week.first <= lastDay)
      .map((week) => ({
        ...week,
        first: week.first < firstDay ? firstDay : week.first,
        last: week.last > lastDay ? lastDay : week.last,
      }))
  return weeks.filter((week) => week.number >= (firstWeek ?? 0) && week.number <= (lastWeek ?? -1))
}

/** A unit with what is nested in it. Dates are `YYYY-MM-DD` in the term's time zone, both ends included. */
export interface UnitStretch {
  number: number
  title: string | null
  first: string
  last: string
  weeks: Week[]
  days: ClassDay[]
  /** False for a unit of a single short week: its days stand directly in it. */
  hasWeekLevel: boolean
}

/** Works units out: first and last day, weeks and class days of each, in order. A unit that covers no week is left out. */
export const unitStretches = (
  units: readonly Unit[],
  weeks: readonly Week[],
  term: Term,
  meetingDays: readonly Weekday[] = [],
): UnitStretch[] =>
  units.flatMap((unit) => {
    const covered = weeksOfUnit(unit, weeks)
    const first = covered[0]
    const last = covered.at(-1)
    if (!first || !last) return []
    const days = covered.flatMap((week) => classDaysOf(week, term, meetingDays))
    return [
      {
        number: unit.number,
        title: unit.title ?? null,
        first: first.first,
        last: last.last,
        weeks: covered,
        days,
        hasWeekLevel: covered.length > 1 || days.length >= 5,
      },
    ]
  })
