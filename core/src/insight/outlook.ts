import { addDays } from '../calendar/index.ts'
import type { CheckResult } from '../check/index.ts'

/** What falls due in a course on a day: how many musts, and how many of each rule. */
export interface ComingDue {
  on: string
  count: number
  rules: Record<string, number>
}

/** What a check says of the days ahead. */
export interface Outlook {
  /** Whether anything that is asked of the instructor was filled in. */
  begun: boolean
  /** Musts that fall due in the weeks after the as-of date, by day, the next first. */
  comingDue: ComingDue[]
}

/** Four weeks, and one more for answers that hold for some days. */
const daysAhead = 35

export const outlookOf = (result: CheckResult): Outlook => {
  const byDay = new Map<string, ComingDue>()
  for (const { outcome, strength, reason, rule } of result.outcomes) {
    const on =
      outcome === 'not-due-yet' && strength === 'must' ? reason?.slice('due '.length) : undefined
    if (on === undefined || on > addDays(result.asOf, daysAhead)) continue
    const day = byDay.get(on) ?? { on, count: 0, rules: {} }
    day.count += 1
    day.rules[rule] = (day.rules[rule] ?? 0) + 1
    byDay.set(on, day)
  }
  return {
    begun: result.outcomes.some(
      (outcome) => outcome.rule === 'fill-in-unfilled' && outcome.outcome === 'passed',
    ),
    comingDue: [...byDay.values()].sort((a, b) => (a.on < b.on ? -1 : 1)),
  }
}

/** What falls due over many courses on a day. */
export interface DayAhead {
  on: string
  musts: number
  /** Ids of the courses, those with most first. */
  courses: number[]
  rules: Record<string, number>
}

/**
 * What falls due over many courses on each day of a stretch, days with nothing included, in their order.
 * @param first the first day, included
 * @param last the last day, included
 */
export const daysAheadOf = (
  outlooks: Iterable<{ course: number; outlook: Pick<Outlook, 'comingDue'> }>,
  first: string,
  last: string,
): DayAhead[] => {
  const days = new Map<string, { courses: Map<number, number>; rules: Record<string, number> }>()
  for (let on = first; on <= last; on = addDays(on, 1))
    days.set(on, { courses: new Map(), rules: {} })
  for (const { course, outlook } of outlooks)
    for (const { on, count, rules = {} } of outlook.comingDue) {
      const day = days.get(on)
      if (!day) continue
      day.courses.set(course, (day.courses.get(course) ?? 0) + count)
      for (const [rule, times] of Object.entries(rules))
        day.rules[rule] = (day.rules[rule] ?? 0) + times
    }
  return [...days].map(([on, { courses, rules }]) => ({
    on,
    musts: [...courses.values()].reduce((sum, count) => sum + count, 0),
    courses: [...courses].sort((a, b) => b[1] - a[1] || a[0] - b[0]).map(([course]) => course),
    rules,
  }))
}
