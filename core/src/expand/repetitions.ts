import type { Week } from '../calendar/index.ts'
import type { Facts, Unit } from '../course/index.ts'
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
  return number >= from && number <= (repeat.to ?? 999) && (number - from) % repeat.every === 0 && !repeat.except.includes(number)
}

/** Weeks dealt out to units as evenly as they go, earlier units taking what is over. */
export const evenUnits = (weeks: readonly Week[], count: number): Unit[] => {
  const least = Math.floor(weeks.length / count)
  const over = weeks.length % count
  const units: Unit[] = []
  let next = 0
  for (let number = 1; number <= count && next < weeks.length; number++) {
    const length = least + (number <= over ? 1 : 0)
    const first = weeks[next]
    const last = weeks[next + length - 1]
    if (first && last) units.push({ number, firstWeek: first.number, lastWeek: last.number })
    next += length
  }
  return units
}

/** One turn of a repeated part: its number and the weeks it covers. */
export interface Turn {
  number: number
  weeks: Week[]
  unit: Unit | null
}

/** The turns of a part that repeats, in the order of their numbers. */
export const turnsOf = (repeat: Repeat, weeks: readonly Week[], units: readonly Unit[]): Turn[] => {
  if (repeat.per === 'times')
    return Array.from({ length: repeat.times ?? 1 }, (_, i) => ({ number: i + 1, weeks: [], unit: null })).filter((turn) => repeatsAt(repeat, turn.number))
  if (repeat.per === 'unit')
    return units
      .filter((unit) => repeatsAt(repeat, unit.number))
      .map((unit) => ({ number: unit.number, weeks: weeks.filter((week) => week.number >= unit.firstWeek && week.number <= unit.lastWeek), unit }))
  return weeks.filter((week) => repeatsAt(repeat, week.number)).map((week) => ({ number: week.number, weeks: [week], unit: null }))
}
