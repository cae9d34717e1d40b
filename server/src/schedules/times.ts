import { Cron } from 'croner'

/** Nothing is read more often than so many minutes apart: whatever changes in between, the platform tells itself. */
export const leastMinutes = 15
const compared = 200

const cronOf = (pattern: string, timeZone: string): Cron =>
  new Cron(pattern, { timezone: timeZone, paused: true, mode: '5-part' })

/** The first time of a pattern after an instant, both ISO 8601 in UTC; null: there is none any more. */
export const nextTime = (pattern: string, timeZone: string, after: string): string | null =>
  cronOf(pattern, timeZone).nextRun(new Date(after))?.toISOString() ?? null

/** Why a pattern cannot be a schedule; null when it can. */
export const patternProblem = (pattern: string, timeZone: string, from: string): string | null => {
  let times: Date[]
  try {
    times = cronOf(pattern, timeZone).nextRuns(compared, new Date(from))
  } catch (cause) {
    return `${cause instanceof Error ? cause.message : String(cause)}; expected minute, hour, day of the month, month and weekday, such as “0 6 * * 1-5”`
  }
  if (times.length === 0) return 'that never comes; expected a time that does'
  const closest = Math.min(
    ...times.slice(1).map((time, i) => time.getTime() - (times[i]?.getTime() ?? 0)),
    Infinity,
  )
  return closest < leastMinutes * 60_000
    ? `that is every ${Math.max(1, Math.round(closest / 60_000))} minutes; expected at least ${leastMinutes} minutes in between: what changes on the platform is read within seconds anyway`
    : null
}
