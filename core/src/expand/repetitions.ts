import {
  classDaysOf,
  halvesOf,
  weeksOfUnit,
  type ClassDay,
  type Term,
  type Unit,
  type Week,
  type WeekHalf,
  type Weekday,
} from '../calendar/index.ts'
import type { Facts } from '../course/index.ts'
import type { Repeat, When } from '../template/index.ts'

/** Whether a part's condition holds for a course. */
export const applies = (when: When | undefined, facts: Facts): boolean =>
  !when ||
  ((!when.modalities || when.modalities.includes(facts.modality)) &&
    (!when.departments || when.departments.includes(facts.department)) &&
    (!when.weeks || (facts.weeks >= when.weeks.from && facts.weeks <= when.weeks.to)) &&
    (!when.classSections || when.classSections === facts.classSectionKind))

/** Whether a number is one of those a repeat asks for. */
export const repeatsAt = (repeat: Repeat, number: number): boolean => {
  const from = repeat.from ?? (repeat.every > 1 ? repeat.every : 0)
  return (
    number >= from &&
    number <= (repeat.to ?? 999) &&
    (number - from) % repeat.every === 0 &&
    !repeat.except.includes(number)
  )
}

/** One occurrence of a repeated part: its number and the stretch of the calendar it covers. */
export interface Occurrence {
  /** The number its name carries. A day is counted within the stretch it repeats in. */
  number: number
  /** Tells its repetition apart in the whole course: the number, but for days and halves the place among all of them. */
  ordinal: number
  weeks: Week[]
  unit: Unit | null
  day: ClassDay | null
  half: WeekHalf | null
}

/** What occurrences are made from. */
export interface OccurrenceCalendar {
  weeks: readonly Week[]
  units: readonly Unit[]
  term: Term
  meetingDays: readonly Weekday[]
}

const occurrence = (number: number, more: Partial<Occurrence> = {}): Occurrence => ({
  number,
  ordinal: number,
  weeks: [],
  unit: null,
  day: null,
  half: null,
  ...more,
})

/** The occurrence of a single week. */
export const weekOccurrence = (week: Week): Occurrence => occurrence(week.number, { weeks: [week] })

/**
 * The occurrences of a part that repeats, in the order of their numbers.
 * @param within the weeks of the occurrence it is nested in; all weeks at the top
 */
export const occurrencesOf = (
  repeat: Repeat,
  { weeks, units, term, meetingDays }: OccurrenceCalendar,
  within: readonly Week[] = weeks,
): Occurrence[] => {
  const asked = (occurrences: Occurrence[]) =>
    occurrences.filter((occurrence) => repeatsAt(repeat, occurrence.number))
  switch (repeat.per) {
    case 'times':
      return asked(Array.from({ length: repeat.times ?? 1 }, (_, i) => occurrence(i + 1)))
    case 'unit':
      return asked(
        units.map((unit) => occurrence(unit.number, { weeks: weeksOfUnit(unit, weeks), unit })),
      )
    case 'week':
      return asked(within.map(weekOccurrence))
    case 'half':
      return asked(
        within.flatMap((week) =>
          halvesOf(week, term, meetingDays).map((half) =>
            occurrence(week.number, {
              ordinal: week.number * 2 + (half.half === 'A' ? 0 : 1),
              weeks: [{ ...week, first: half.first, last: half.last }],
              half,
            }),
          ),
        ),
      )
    case 'day': {
      const dates = weeks
        .flatMap((week) => classDaysOf(week, term, meetingDays))
        .map((day) => day.date)
      const days = within.flatMap((week) =>
        classDaysOf(week, term, meetingDays).map((day) => ({ week, day })),
      )
      return asked(
        days.map(({ week, day }, i) =>
          occurrence(i + 1, {
            ordinal: dates.indexOf(day.date) + 1,
            weeks: [{ ...week, first: day.date, last: day.date }],
            day,
          }),
        ),
      )
    }
  }
}
