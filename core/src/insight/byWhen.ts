import type { Week } from '../calendar/index.ts'
import type { OpenMust } from './openMusts.ts'

/**
 * The first day on which students meet what an open must tells of: the first day of the earliest week in which it is open.
 * @returns `YYYY-MM-DD`, or null where they meet it already, or it stands in no week
 */
export const byWhen = (
  { places }: OpenMust,
  weeks: readonly Week[],
  today: string,
): string | null => {
  const firstDays = new Map(weeks.map(({ number, first }) => [number, first]))
  let soonest: string | null = null
  for (const { week } of places) {
    const day = week === null ? undefined : firstDays.get(week)
    if (day === undefined || day <= today) return null
    if (soonest === null || day < soonest) soonest = day
  }
  return soonest
}
