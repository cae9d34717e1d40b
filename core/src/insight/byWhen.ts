import type { Week } from '../calendar/index.ts'
import type { Finding } from '../check/index.ts'

/**
 * The first day on which students meet what a finding tells of: the first day of the earliest week in which it is open.
 * @returns `YYYY-MM-DD`, or null where they meet it already, or it stands in no week
 */
export const byWhen = (
  { places }: Finding,
  weeks: readonly Week[],
  today: string,
): string | null => {
  const firstDays = new Map(weeks.map(({ number, first }) => [number, first]))
  let soonest: string | null = null
  for (const { place, waived } of places) {
    if (waived) continue
    const day = place.week === null ? undefined : firstDays.get(place.week)
    if (day === undefined || day <= today) return null
    if (soonest === null || day < soonest) soonest = day
  }
  return soonest
}
