import { z } from 'zod'
import { addDays, PlainDate } from '../calendar/index.ts'
import { CheckResult, Finding } from '../check/index.ts'

/** From this day on a course stood so, until its next change. */
export const ReadinessChange = z.strictObject({
  day: PlainDate,
  readiness: CheckResult.shape.readiness,
  openMusts: z.number(),
  openShoulds: z.number(),
})
export type ReadinessChange = z.output<typeof ReadinessChange>

/** A stretch of days on which a finding was told at one place; one that came back has several. */
export const FindingSpell = z.strictObject({
  fingerprint: z.string(),
  rule: z.string(),
  strength: Finding.shape.strength,
  message: z.string(),
  came: PlainDate,
  went: PlainDate.nullable().describe('The first day without it; null: it is still found'),
})
export type FindingSpell = z.output<typeof FindingSpell>

/** How some courses stood at the end of a day. */
export const ReadinessDay = z.strictObject({
  day: PlainDate,
  ready: z.number(),
  asFarAsSeen: z.number(),
  notReady: z.number(),
  openMusts: z.number(),
})
export type ReadinessDay = z.output<typeof ReadinessDay>

const field = {
  ready: 'ready',
  'ready-as-far-as-seen': 'asFarAsSeen',
  'not-ready': 'notReady',
} as const

/**
 * How courses stood day by day: between its changes a course stands as after the last of them; before its first it is not counted.
 * @param courses the changes of each course, the earliest first
 * @param from first day @param until last day, not before the first
 */
export const readinessByDay = (
  courses: readonly (readonly ReadinessChange[])[],
  from: string,
  until: string,
): ReadinessDay[] => {
  const changes = new Map<string, { is: ReadinessChange; was: ReadinessChange | null }[]>()
  for (const of of courses)
    of.forEach((is, i) => {
      const day = is.day < from ? from : is.day
      const there = changes.get(day)
      const one = { is, was: of[i - 1] ?? null }
      if (there) there.push(one)
      else changes.set(day, [one])
    })
  const days: ReadinessDay[] = []
  const now = { ready: 0, asFarAsSeen: 0, notReady: 0, openMusts: 0 }
  for (let day = from; day <= until; day = addDays(day, 1)) {
    for (const { is, was } of changes.get(day) ?? []) {
      if (was) {
        now[field[was.readiness]] -= 1
        now.openMusts -= was.openMusts
      }
      now[field[is.readiness]] += 1
      now.openMusts += is.openMusts
    }
    days.push({ day, ...now })
  }
  return days
}

/**
 * Days from a day until the course was ready for the first time, counted from that day; 0 for one that was ready by then, null for
 * one that never was.
 */
export const daysToReady = (changes: readonly ReadinessChange[], from: string): number | null => {
  const before = changes.findLast(({ day }) => day <= from)
  if (before && before.readiness !== 'not-ready') return 0
  const ready = changes.find(({ day, readiness }) => day > from && readiness !== 'not-ready')
  if (!ready) return null
  let days = 0
  for (let day = from; day < ready.day; day = addDays(day, 1)) days += 1
  return days
}
