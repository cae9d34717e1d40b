import { z } from 'zod'
import { type CourseImpact, MovedRequirement, Standing } from './courseImpact.ts'

const Standings = z.strictObject({
  ready: z.number().int().describe('Courses that are ready, as far as can be seen'),
  openMusts: z.number().int(),
  openShoulds: z.number().int(),
})

/** What a version would change over many courses. */
export const ImpactSum = z.strictObject({
  courses: z.number().int().describe('Those that could be foreseen'),
  now: Standings,
  after: Standings,
  becomeReady: z.array(z.number()).describe('Ids of courses that are not ready now, and then'),
  stopBeingReady: z.array(z.number()).describe('Ids of courses that are ready now, and not then'),
  requirements: z.array(
    MovedRequirement.extend({
      opens: z.number().int().describe('Courses in which it comes open'),
      closes: z.number().int().describe('Courses in which it is closed'),
    }),
  ),
  rollout: z.strictObject({
    changed: z.number().int().describe('Courses it would change'),
    untouched: z.number().int().describe('Courses in which it would have nothing to do'),
    leftOut: z.number().int().describe('Courses it would leave out, or could not be planned for'),
    checkedOnly: z.number().int().describe('Courses nothing was deployed to'),
    undecided: z.number().int().describe('Courses with a conflict for somebody to decide'),
    counts: z.record(z.string(), z.number()).describe('Parts, by what is done to them'),
  }),
  doNotFit: z.array(z.strictObject({ course: z.number(), reason: z.string() })),
  unread: z.number().int(),
})
export type ImpactSum = z.output<typeof ImpactSum>

const times = ['now', 'after'] as const
const isReady = ({ readiness }: Standing): boolean => readiness !== 'not-ready'

/**
 * Sums over courses what a version would change, in the order of the courses; requirements by the courses in which they come
 * open, most first.
 */
export const sumImpacts = (
  impacts: Iterable<{ course: number; impact: CourseImpact }>,
): ImpactSum => {
  const none = () => ({ ready: 0, openMusts: 0, openShoulds: 0 })
  const sum: ImpactSum = {
    courses: 0,
    now: none(),
    after: none(),
    becomeReady: [],
    stopBeingReady: [],
    requirements: [],
    rollout: { changed: 0, untouched: 0, leftOut: 0, checkedOnly: 0, undecided: 0, counts: {} },
    doNotFit: [],
    unread: 0,
  }
  const requirements = new Map<string, ImpactSum['requirements'][number]>()
  for (const { course, impact } of impacts) {
    if (impact.state === 'unread') {
      sum.unread += 1
      continue
    }
    if (impact.state === 'does-not-fit') {
      sum.doNotFit.push({ course, reason: impact.reason })
      continue
    }
    sum.courses += 1
    for (const when of times) {
      const standing = impact[when]
      if (isReady(standing)) sum[when].ready += 1
      sum[when].openMusts += standing.openMusts
      sum[when].openShoulds += standing.openShoulds
    }
    const [before, after] = times.map((when) => isReady(impact[when]))
    if (!before && after) sum.becomeReady.push(course)
    if (before && !after) sum.stopBeingReady.push(course)
    for (const moved of impact.moved) addMoved(requirements, moved)
    addRollout(sum.rollout, impact.rollout)
  }
  sum.requirements = [...requirements.values()].sort(
    (a, b) =>
      Number(b.strength === 'must') - Number(a.strength === 'must') ||
      b.opens - a.opens ||
      b.closes - a.closes ||
      (`${a.rule}|${a.part ?? ''}` < `${b.rule}|${b.part ?? ''}` ? -1 : 1),
  )
  return sum
}

const addMoved = (
  sums: Map<string, ImpactSum['requirements'][number]>,
  { opens, closes, ...requirement }: MovedRequirement,
): void => {
  const { rule, part, strength } = requirement
  const key = JSON.stringify([rule, part, strength])
  const known = sums.get(key) ?? { ...requirement, opens: 0, closes: 0 }
  known.opens += Number(opens > 0)
  known.closes += Number(closes > 0)
  sums.set(key, known)
}

const addRollout = (
  sum: ImpactSum['rollout'],
  rollout: Extract<CourseImpact, { state: 'foreseen' }>['rollout'],
): void => {
  if (!rollout) sum.checkedOnly += 1
  else if (rollout.state === 'ready') sum.changed += 1
  else if (rollout.state === 'nothing-to-do') sum.untouched += 1
  else sum.leftOut += 1
  if (!rollout) return
  if (rollout.undecided > 0) sum.undecided += 1
  for (const [does, count] of Object.entries(rollout.counts))
    sum.counts[does] = (sum.counts[does] ?? 0) + count
}
