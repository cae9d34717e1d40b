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

/** One turn of a repeated part: its number and the stretch of the calendar it covers. */
export interface Turn {
  /** The number its name carries. A day is counted within the stretch it repeats in. */
  number: number
  /** Tells its repetition apart in the whole course: the number, but for days and halves the place among all of them. */
  ordinal: number
  weeks: Week[]
  unit: Unit | null
  day: ClassDay | null
  half: WeekHalf | null
}

/** What turns are made from. */
export interface TurnCalendar {
  weeks: readonly Week[]
  units: readonly Unit[]
  term: Term
  meetingDays: readonly Weekday[]
}

const turn = (number: number, more: Partial<Turn> = {}): Turn => ({
  number,
  ordinal: number,
  weeks: [],
  unit: null,
  day: null,
  half: null,
  ...more,
})

/** The turn of a single week. */
export const weekTurn = (week: Week): Turn => turn(week.number, { weeks: [week] })

/**
 * The turns of a part that repeats, in the order of their numbers.
 * @param within the weeks of the turn it is nested in; all weeks at the top
 */
export const turnsOf = (
  repeat: Repeat,
  { weeks, units, term, meetingDays }: TurnCalendar,
  within: readonly Week[] = weeks,
): Turn[] => {
  const asked = (turns: Turn[]) => turns.filter((turn) => repeatsAt(repeat, turn.number))
  switch (repeat.per) {
    case 'times':
      return asked(Array.from({ length: repeat.times ?? 1 }, (_, i) => turn(i + 1)))
    case 'unit':
      return asked(
        units.map((unit) => turn(unit.number, { weeks: weeksOfUnit(unit, weeks), unit })),
      )
    case 'week':
      return asked(within.map(weekTurn))
    case 'half':
      return asked(
        within.flatMap((week) =>
          halvesOf(week, term, meetingDays).map((half) =>
            turn(week.number, {
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
          turn(i + 1, {
            ordinal: dates.indexOf(day.date) + 1,
            weeks: [{ ...week, first: day.date, last: day.date }],
            day,
          }),
        ),
      )
    }
  }
}
