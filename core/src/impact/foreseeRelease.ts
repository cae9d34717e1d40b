import { checkCourse, type Check, type CheckResult } from '../check/index.ts'
import {
  documentHand,
  everyCourseItem,
  withRecordedIdentity,
  type Course,
} from '../course/index.ts'
import type { Problem } from '../document/index.ts'
import { blockMarker, withoutMarks } from '../page/index.ts'
import {
  carryOut,
  expandForPlan,
  identityOf,
  isWorkedOut,
  planDeployment,
  type Base,
  type Bodies,
  type Plan,
} from '../plan/index.ts'
import type { Template } from '../template/index.ts'

/** A version that is not out yet, and what was deployed to the course before it. */
export interface Release {
  template: Template
  /** Empty: nothing was deployed, so no rollout would change the course. */
  base: Base
  bodies: Bodies
  /** Which revisions of house texts would be written, `YYYY-MM-DD`. */
  onDate: string
}

export type Foreseen =
  | { state: 'does-not-fit'; reason: string }
  | {
      state: 'foreseen'
      /** What a rollout of the new version would do; null where nothing was deployed. */
      plan: Plan | null
      /** The course held to the new version: once the rollout is carried out, or as it stands where there is none to carry out. */
      after: CheckResult
    }

const misfit = (problems: readonly Problem[]): Foreseen => ({
  state: 'does-not-fit',
  reason: problems
    .map(({ path, found, expected }) => `${path.slice(1)} is ${found}, expected ${expected}`)
    .join('; '),
})

/** Whether the platform takes our marks out of what it is given: none of the pages that were deployed has one. */
const losesMarks = (course: Course, { parts }: Base): boolean => {
  const ours = new Set(
    parts.flatMap(({ platformId, blocks }) => (blocks.length > 0 ? [platformId] : [])),
  )
  return !everyCourseItem(course).some(
    ({ item }) => ours.has(item.id) && (item.html ?? '').includes(blockMarker),
  )
}

/**
 * What a version would be for one course before it is released: the rollout that would bring it, and a check of the course
 * after that. Until it is rolled out a course stays held to what was deployed, so nothing is asked of it between. Pure: the
 * rollout is carried out on the document, and nothing is sent.
 * @param now all that the course is checked with, whatever template it is under
 */
export const foreseeRelease = (
  now: Check,
  { template, base, bodies, onDate }: Release,
): Foreseen => {
  const check: Check = { ...now, template, mends: false }
  const heldTo = (course: Check, plan: Plan | null): Foreseen => {
    const after = checkCourse(course)
    return after.ok ? { state: 'foreseen', plan, after: after.value } : misfit(after.problems)
  }
  if (base.parts.length === 0) return heldTo(check, null)
  const { course, facts } = check
  const expansion = expandForPlan({ template, facts, course, base })
  if (!expansion.ok) return misfit(expansion.problems)
  const plan = planDeployment({ expected: expansion.value, course, base, bodies, onDate })
  if (!isWorkedOut(plan)) return heldTo(check, plan)
  const hand = documentHand(course)
  const done = carryOut(
    plan,
    course,
    base,
    losesMarks(course, base) ? { ...hand, rewriteHtml: withoutMarks } : hand,
    bodies,
  )
  if (!done.ok) return { state: 'does-not-fit', reason: done.problems.message }
  const identity = identityOf(done.value.base)
  const version = template.version ?? null
  const deployed = { deployedOn: onDate, deployedVersion: version, newestVersion: version }
  return heldTo(
    {
      ...check,
      course: withRecordedIdentity(done.value.course, identity),
      history: check.history
        ? { ...check.history, ...deployed, recordedParts: identity.size }
        : null,
    },
    plan,
  )
}
