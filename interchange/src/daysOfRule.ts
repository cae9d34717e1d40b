import ICAL from 'ical.js'
import { addDays, daysBetween, weekdayIndex } from '@wickerframe/core'

/** Steps that all events of a file may take together; a file of a hundred yearly events since 1990 takes four thousand. */
const mostSteps = 50_000

/** Counts what a whole file asks for, so that many events cannot do what one may not. */
export class Steps {
  #left = mostSteps
  /** @throws TooManySteps when there are no more */
  take(count = 1): void {
    this.#left -= count
    if (this.#left < 0) throw new TooManySteps()
  }
}
export class TooManySteps extends Error {}

const dayNames = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU']
/** The day of a time, `YYYY-MM-DD`. */
export const dateOf = (time: ICAL.Time): string =>
  `${String(time.year).padStart(4, '0')}-${String(time.month).padStart(2, '0')}-${String(time.day).padStart(2, '0')}`
const timeOf = (date: string): ICAL.Time => ICAL.Time.fromDateString(date)

const numbersOf = (rule: ICAL.Recur, part: string): number[] => rule.getComponent(part).map(Number)

/** Whether a day is of the months and days of the month that a rule names; all are where it names none. */
const inMonths = (rule: ICAL.Recur): ((date: string) => boolean) => {
  const months = numbersOf(rule, 'BYMONTH')
  const monthDays = numbersOf(rule, 'BYMONTHDAY')
  const fromTheEnd = monthDays.some((day) => day < 0)
  return (date) => {
    const month = Number(date.slice(5, 7))
    if (months.length > 0 && !months.includes(month)) return false
    if (monthDays.length === 0) return true
    const day = Number(date.slice(8))
    if (monthDays.includes(day)) return true
    if (!fromTheEnd) return false
    const length = new Date(Date.UTC(Number(date.slice(0, 4)), month, 0)).getUTCDate()
    return monthDays.includes(day - length - 1)
  }
}
/** Whether a day holds under all parts that limit a rule by day or week (RFC 5545, 3.3.10, the table of BY parts). */
const limitsOf = (rule: ICAL.Recur): ((date: string) => boolean) => {
  const inItsMonths = inMonths(rule)
  const days = rule.getComponent('BYDAY').map(String)
  return (date) =>
    inItsMonths(date) && (days.length === 0 || days.includes(dayNames[weekdayIndex(date)] ?? ''))
}
/** Those of a set that BYSETPOS names; all of them without it. */
const atPositions = (set: readonly string[], rule: ICAL.Recur): string[] => {
  const positions = numbersOf(rule, 'BYSETPOS')
  return set.filter(
    (_, i) =>
      positions.length === 0 || positions.includes(i + 1) || positions.includes(i - set.length),
  )
}

/**
 * Days of a rule that repeats by day or by week, from the first of its periods that reaches into what is asked for; where
 * days are counted (COUNT), from its start. Each step is a day, so that a rule that never holds ends as well.
 */
function* byDaysOrWeeks(
  rule: ICAL.Recur,
  start: string,
  from: string,
  until: string,
  steps: Steps,
): Generator<string> {
  const holds = limitsOf(rule)
  const weekly = rule.freq === 'WEEKLY'
  const weekStart = ((rule.wkst ?? ICAL.Time.MONDAY) + 5) % 7 // ical.js: 1 is Sunday; here 0 is Monday
  const first = weekly ? addDays(start, -((weekdayIndex(start) - weekStart + 7) % 7)) : start
  const length = weekly ? 7 : 1
  const period = length * Math.max(1, rule.interval)
  const onStartsDay = weekly && rule.getComponent('BYDAY').length === 0
  const counted = rule.count ?? null
  const skipped = counted === null ? Math.max(0, Math.floor(daysBetween(first, from) / period)) : 0
  let found = 0
  for (let at = addDays(first, skipped * period); at <= until; at = addDays(at, period)) {
    steps.take(length)
    const set = Array.from({ length }, (_, i) => addDays(at, i)).filter(
      (date) => holds(date) && (!onStartsDay || weekdayIndex(date) === weekdayIndex(start)),
    )
    for (const date of atPositions(set, rule)) {
      if (date < start) continue
      if (counted !== null && ++found > counted) return
      if (date > until) return
      yield date
    }
  }
}

/** Days of a rule that repeats by month or by year, as ical.js finds them, but for those of a month too short, which it moves into the next. */
function* byMonthsOrYears(
  rule: ICAL.Recur,
  start: string,
  until: string,
  steps: Steps,
): Generator<string> {
  const holds = inMonths(rule)
  const bounded = rule.clone()
  bounded.until = timeOf(until)
  const iterator = bounded.iterator(timeOf(start))
  for (;;) {
    steps.take(30)
    const next = iterator.next() as ICAL.Time | null
    if (!next || dateOf(next) > until) return
    if (holds(dateOf(next))) yield dateOf(next)
  }
}

/**
 * Days on which a rule (RRULE, RFC 5545) of a whole-day event has it begin, in order.
 * @param from first day asked for, `YYYY-MM-DD`; days before it may come as well
 * @param until last day asked for
 * @throws TooManySteps
 */
export const daysOfRule = (
  rule: ICAL.Recur,
  start: string,
  from: string,
  until: string,
  steps: Steps,
): string[] => {
  const own = rule.until ? dateOf(rule.until) : until
  const last = own < until ? own : until
  switch (rule.freq) {
    case 'DAILY':
    case 'WEEKLY':
      return [...byDaysOrWeeks(rule, start, from, last, steps)]
    case 'MONTHLY':
    case 'YEARLY':
      return [...byMonthsOrYears(rule, start, last, steps)]
    default:
      // A whole day is not repeated within itself.
      return []
  }
}
