import { addDays } from '../calendar/index.ts'
import type { CheckResult } from '../check/index.ts'

/** What a check says of the days ahead. */
export interface Outlook {
  /** Whether anything that is asked of the instructor was filled in. */
  begun: boolean
  /** Musts that fall due in the seven days after the as-of date, by day. */
  comingDue: { on: string; count: number }[]
}

const daysAhead = 7

export const outlookOf = (result: CheckResult): Outlook => {
  const byDay = new Map<string, number>()
  for (const outcome of result.outcomes) {
    const on =
      outcome.outcome === 'not-due-yet' && outcome.strength === 'must'
        ? outcome.reason?.slice('due '.length)
        : undefined
    if (on !== undefined && on <= addDays(result.asOf, daysAhead))
      byDay.set(on, (byDay.get(on) ?? 0) + 1)
  }
  return {
    begun: result.outcomes.some(
      (outcome) => outcome.rule === 'fill-in-unfilled' && outcome.outcome === 'passed',
    ),
    comingDue: [...byDay]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([on, count]) => ({ on, count })),
  }
}
