import { z } from 'zod'
import { CheckResult, Finding } from '../check/index.ts'
import { isWorkedOut, type Plan } from '../plan/index.ts'
import type { Foreseen } from './foreseeRelease.ts'

/** How a course stands under a version. */
export const Standing = z.strictObject({
  readiness: CheckResult.shape['readiness'],
  openMusts: z.number().int(),
  openShoulds: z.number().int(),
})
export type Standing = z.output<typeof Standing>

/** A requirement that comes open or is closed in a course: a rule at a part of the template (null: at none). */
export const MovedRequirement = z.strictObject({
  rule: z.string(),
  part: z.string().nullable(),
  strength: Finding.shape['strength'],
  title: z.string(),
  says: z.string().describe('Of the first place'),
  mender: Finding.shape['mender'],
  opens: z.number().int().describe('Places that are open then and not now'),
  closes: z.number().int().describe('Places that are open now and not then'),
})
export type MovedRequirement = z.output<typeof MovedRequirement>

/** What a rollout of the version would do in the course. */
export const ForeseenRollout = z.strictObject({
  state: z.enum(['ready', 'nothing-to-do', 'left-out', 'unusable']),
  reason: z.string(),
  counts: z.record(z.string(), z.number()).describe('Parts, by what is done to them'),
  undecided: z.number().int(),
})
export type ForeseenRollout = z.output<typeof ForeseenRollout>

/** What a version would change for one course. */
export const CourseImpact = z.discriminatedUnion('state', [
  z
    .strictObject({ state: z.literal('unread') })
    .describe('Never read, or not to be judged as it is held now: nothing can be told of it'),
  z.strictObject({ state: z.literal('does-not-fit'), reason: z.string() }),
  z.strictObject({
    state: z.literal('foreseen'),
    now: Standing,
    /** Once it is rolled out; held to it as it stands, where there is nothing to roll out. */
    after: Standing,
    moved: z.array(MovedRequirement),
    rollout: ForeseenRollout.nullable().describe('null: nothing was deployed to it'),
  }),
])
export type CourseImpact = z.output<typeof CourseImpact>

type Told = Pick<CheckResult, 'readiness' | 'counts' | 'findings'>

const standingOf = ({ readiness, counts }: Told): Standing => ({
  readiness,
  openMusts: counts.openMusts,
  openShoulds: counts.openShoulds,
})

/** What is open in a course: a place that is a must now and was a should is another. Those for information only are left out. */
const openPlaces = ({ findings }: Told) =>
  new Map(
    findings.flatMap((finding) =>
      finding.strength === 'may'
        ? []
        : finding.places.flatMap((place) =>
            place.waived
              ? []
              : [[`${place.fingerprint} ${finding.strength}`, { finding, place }] as const],
          ),
    ),
  )

/** What moves between a check as the course is now, and a check under another version. */
export const movedBetween = (now: Told, after: Told): MovedRequirement[] => {
  const before = openPlaces(now)
  const then = openPlaces(after)
  const moved = new Map<string, MovedRequirement>()
  const count = (
    does: 'opens' | 'closes',
    from: ReturnType<typeof openPlaces>,
    unlessIn: ReturnType<typeof openPlaces>,
  ): void => {
    for (const [key, { finding, place }] of from) {
      if (unlessIn.has(key)) continue
      const { rule, strength, title, mender } = finding
      const { part } = place.place
      const id = JSON.stringify([rule, part, strength])
      const known = moved.get(id) ?? {
        rule,
        part,
        strength,
        title,
        says: place.message,
        mender,
        opens: 0,
        closes: 0,
      }
      known[does] += 1
      moved.set(id, known)
    }
  }
  count('opens', then, before)
  count('closes', before, then)
  return [...moved.values()]
}

const rolloutOf = (plan: Plan): ForeseenRollout => {
  if (!isWorkedOut(plan))
    return { state: plan.state, reason: plan.reason, counts: {}, undecided: 0 }
  const counts: Record<string, number> = {}
  for (const { does } of plan.steps) counts[does] = (counts[does] ?? 0) + 1
  return { state: plan.state, reason: '', counts, undecided: plan.undecided }
}

/** What a version would change for a course. @param now its check as it is held now */
export const courseImpact = (now: Told, foreseen: Foreseen): CourseImpact => {
  if (foreseen.state === 'does-not-fit') return foreseen
  const { plan, after } = foreseen
  return {
    state: 'foreseen',
    now: standingOf(now),
    after: standingOf(after),
    moved: movedBetween(now, after),
    rollout: plan && rolloutOf(plan),
  }
}
