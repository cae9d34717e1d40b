import {
  analysePage,
  bodiesOfBase,
  bodiesOfRecord,
  carryOver,
  everyCourseItem,
  everyItem,
  expandForPlan,
  isShell,
  isWorkedOut,
  overlay,
  pairCourse,
  planDeployment,
  planShape,
  planUndo,
  withStrengthsOf,
  type Base,
  type PartsTaken,
  type Course,
  type Decisions,
  type ExpectedCourse,
  type Plan,
  type Template,
  misfitsOf,
} from '@wickerframe/core'
import type { PlanSummary, RolloutOrder } from '@wickerframe/contract'
import type { Database } from '@wickerframe/storage'
import { digestOf, digestOfMade } from '../digest.ts'
import { findBase } from './bases.ts'
import { courseBodies, type CourseBodies } from '../snapshots/courseBodies.ts'
import { findCourse, type HeldToState, type StoredCourse } from '../courses/courses.ts'
import { findDeploymentOfRun } from './deployments.ts'
import { findSnapshot } from '../snapshots/snapshots.ts'
import { versionById, versionByKey } from '../templates/versions.ts'

/** Raised with every change of what a plan or an expansion gives for the same input. */
export const engineVersion = 'wickerframe-4'

/** What of which version a plan brings into a course; null: it does not change to what the course is held. */
export type HeldTo = { templateId: number; version: number; partsTaken: PartsTaken | null } | null

export interface PlannedCourse {
  plan: Plan
  summary: PlanSummary
  base: Base
  bodies: CourseBodies
  /** What was planned for; null for an undo. */
  expected: ExpectedCourse | null
  template: Template | null
  heldTo: HeldTo
  /** For an undo: to what the course is held again; null: as it is now. */
  heldToAgain: HeldToState | null
  /** Deployment that is taken back, if that is what is planned. */
  undoes: number | null
}

/** What a course is planned by. */
export interface PlanOrder {
  order: RolloutOrder
  decisions: Decisions
  sourceCourseId: number | null
}

const unusable = (reason: string): { unusable: string } => ({ unusable: reason })
const noun = (count: number, word: string): string => `${count} ${word}${count === 1 ? '' : 's'}`

/** Blocks of a template that show a house text, as `PART/BLOCK`. */
const blocksShowing = (expected: ExpectedCourse, houseText: string): string[] => [
  ...new Set(
    [expected.home, ...everyExpectedPart(expected)].flatMap((part) =>
      part.blocks.flatMap((block) =>
        block.houseText?.key === houseText ? [`${part.key}/${block.key}`] : [],
      ),
    ),
  ),
]
const everyExpectedPart = (expected: ExpectedCourse) => {
  const all: ExpectedCourse['parts'] = []
  const visit = (part: ExpectedCourse['parts'][number]) => {
    all.push(part)
    part.items.forEach(visit)
  }
  expected.parts.forEach(visit)
  return all
}

/**
 * The plan for one course, from what is stored and what was read of it. Reads the database, never the platform.
 * @param today which revisions of house texts are written
 */
export const planCourse = async (
  database: Database,
  { order, decisions, sourceCourseId }: PlanOrder,
  stored: StoredCourse,
  course: Course,
  today: string,
): Promise<PlannedCourse | { unusable: string }> => {
  const { id: courseId, status } = stored.summary
  const bodies = courseBodies()
  const base = await findBase(database, courseId)
  const leftOut = (reason: string): PlannedCourse | { unusable: string } =>
    ended({ state: 'left-out', reason }, null, null, null)
  const ended = (
    plan: Plan,
    expected: ExpectedCourse | null,
    heldTo: HeldTo,
    undoes: number | null,
    warning = '',
    heldToAgain: HeldToState | null = null,
  ): PlannedCourse | { unusable: string } =>
    plan.state === 'unusable'
      ? unusable(plan.reason)
      : {
          heldToAgain,
          plan,
          summary: summaryOf(plan, warning),
          base,
          bodies,
          expected,
          template: expected?.template ?? null,
          heldTo,
          undoes,
        }
  if (order.mode !== 'undo' && status !== 'teaching' && status !== 'preparing')
    return leftOut(`the course is ${status}`)
  if (base.parts.length > 0)
    for (const { item } of everyCourseItem(course)) if (item.html !== null) bodies.idOf(item.html)

  if (order.mode === 'undo') {
    const deployment = await findDeploymentOfRun(database, order.run, courseId)
    if (!deployment) return leftOut('that rollout did nothing here, or it was taken back already')
    await bodies.load(database, courseId, [
      ...bodiesOfBase(base),
      ...bodiesOfRecord(deployment.undo),
    ])
    const plan = planUndo({ record: deployment.undo, course, base, bodies })
    return ended(plan, null, null, deployment.number, '', deployment.heldToBefore)
  }

  const version =
    order.mode === 'version' || order.mode === 'carry'
      ? await versionByKey(database, order.template, order.version)
      : stored.templateId !== null && stored.version !== null
        ? await versionById(database, stored.templateId, stored.version)
        : null
  if (!version)
    return order.mode === 'house-text'
      ? leftOut('nothing was deployed to it')
      : unusable('the version is gone')
  const expansion = expandForPlan({ template: version.document, facts: stored.facts, course, base })
  if (!expansion.ok)
    return unusable(
      `the template does not fit: ${expansion.problems.map((problem) => `${problem.path.slice(1)} is ${problem.found}, expected ${problem.expected}`).join('; ')}`,
    )
  const expected = expansion.value
  await bodies.load(database, courseId, bodiesOfBase(base))
  const common = { expected, course, base, bodies, onDate: today, decisions }
  const heldTo: HeldTo = {
    templateId: version.templateId,
    version: version.number,
    partsTaken: null,
  }

  if (order.mode === 'house-text') {
    const blocks = blocksShowing(expected, order.houseText)
    if (base.parts.length === 0 || blocks.length === 0)
      return leftOut('it does not show this house text')
    return ended(planDeployment({ ...common, only: { parts: [], blocks } }), expected, null, null)
  }
  if (order.mode === 'carry') {
    if (base.parts.length > 0 || !isShell(course)) return leftOut('the course is no shell any more')
    const source =
      sourceCourseId === null ? null : await findCourse(database, sourceCourseId, 'system', today)
    const snapshot = sourceCourseId === null ? null : await findSnapshot(database, sourceCourseId)
    if (!source || !snapshot || sourceCourseId === null)
      return unusable('the course it comes from was never read')
    const sourceBase = await findBase(database, sourceCourseId)
    await bodies.load(database, sourceCourseId, bodiesOfBase(sourceBase))
    return ended(
      carryOver(
        planDeployment(common),
        expected,
        { course: snapshot.course, base: sourceBase, bodies, facts: source.facts },
        new Set(order.carry),
      ),
      expected,
      heldTo,
      null,
    )
  }
  const chosen = order.only
  if (chosen && base.parts.length === 0)
    return leftOut('nothing was deployed to it yet, so there is nothing to bring single parts into')
  const adopts = base.parts.length === 0 && !isShell(course) && order.adopt
  const adopt = adopts
    ? new Map(
        pairCourse(expected, course, (item) =>
          item.html === null ? null : analysePage(item.html),
        ).pairs.map((pair) => [pair.expected, pair.found]),
      )
    : undefined
  const plan = planDeployment({
    ...common,
    only: chosen,
    except: order.except,
    restore: order.restore,
    ...(adopt ? { adopt } : {}),
  })
  const undecidedParts = !isWorkedOut(plan)
    ? []
    : plan.steps
        .filter((step) =>
          step.fields.some((field) => field.does === 'conflict' && field.decided === null),
        )
        .map((step) => step.part)
  const except = [...new Set([...order.except, ...undecidedParts])]
  const only =
    chosen === null
      ? null
      : [...chosen.parts, ...chosen.blocks.map((block) => block.split('/')[0] ?? '')]
  return ended(
    plan,
    expected,
    { ...heldTo, partsTaken: only === null && except.length === 0 ? null : { only, except } },
    null,
    misfitOf(version.document, stored),
  )
}

/**
 * A digest of everything a plan of a version is made from but the course on the platform, whose revision the platform judges;
 * null for orders whose plans are always made anew.
 */
export const planInputs = async (
  database: Database,
  { order, decisions }: PlanOrder,
  stored: StoredCourse,
  today: string,
  baseRevision: number,
): Promise<{ digest: string; template: Template } | null> => {
  if (order.mode !== 'version') return null
  const version = await versionByKey(database, order.template, order.version)
  return (
    version && {
      template: version.document,
      digest: digestOfMade({
        order,
        decisions,
        facts: stored.facts,
        status: stored.summary.status,
        version: version.digest,
        today,
        baseRevision,
        engineVersion,
      }),
    }
  )
}

/** A word of warning when the template is meant for other courses than this one; empty when it fits. */
const misfitOf = ({ key, appliesTo }: Template, { summary }: StoredCourse): string => {
  const other =
    summary.template && summary.template.key !== key
      ? `it was deployed from ${summary.template.title}, whose own parts stay`
      : ''
  const misfits = misfitsOf(appliesTo, summary)
  const cares = [
    ...(misfits.length > 0 ? [`the template is meant for ${misfits.join('; for ')}`] : []),
    ...(other === '' ? [] : [other]),
  ]
  return cares.length > 0 ? `Take care: ${cares.join('; ')}.` : ''
}

/** How many parts a plan creates, changes, keeps …; the course itself counts as one. */
export const countsOf = (plan: Plan): Record<string, number> => {
  const counts: Record<string, number> = {}
  if (isWorkedOut(plan))
    for (const step of plan.steps) counts[step.does] = (counts[step.does] ?? 0) + 1
  return counts
}

const wordsOf: readonly (readonly [does: string, word: string, ofSeveral?: string])[] = [
  ['create', 'created'],
  ['set', 'set'],
  ['change', 'changed'],
  ['move', 'moved'],
  ['adopt', 'taken as it is', 'taken as they are'],
  ['remove', 'removed'],
  ['conflict', 'in conflict'],
  ['keep', 'kept as it stands', 'kept as they stand'],
]
/** What a plan does in one sentence. */
export const planSentence = (plan: Plan): string => {
  if (!isWorkedOut(plan)) return plan.reason
  const counts = countsOf(plan)
  const said = wordsOf.flatMap(([does, word, ofSeveral]) => {
    const count = does === 'set' ? 0 : (counts[does] ?? 0)
    return count > 0 ? [`${noun(count, 'part')} ${count === 1 ? word : (ofSeveral ?? word)}`] : []
  })
  if (said.length === 0)
    return counts['set'] ? 'the course itself is set' : 'nothing to do: everything is there already'
  return said.join(', ')
}

const summaryOf = (plan: Plan, warning: string): PlanSummary => {
  const shape = planShape(plan)
  const reason = plan.state === 'ready' && warning !== '' ? warning : planSentence(plan)
  if (!isWorkedOut(plan))
    return {
      state: plan.state,
      reason,
      shape: shape.id,
      lines: [],
      unchanged: 0,
      undecided: 0,
      additive: false,
      consequences: [],
      digest: digestOf({ state: plan.state, reason }),
    }
  const { state, unchanged, undecided, additive, consequences, changes, next } = plan
  return {
    state,
    reason,
    shape: shape.id,
    lines: shape.lines,
    unchanged,
    undecided,
    additive,
    consequences,
    digest: digestOfMade(
      state === 'ready'
        ? { changes, next: changes.length === 0 ? next : null, engineVersion }
        : { state },
    ),
  }
}

/** The template a course is held to: the version it is under, with what of newer ones was brought into it, and the strengths adopted for it. */
export const expectationOf = async (
  database: Database,
  stored: StoredCourse,
): Promise<Template | null> => {
  if (stored.templateId === null || stored.version === null) return null
  const version = await versionById(database, stored.templateId, stored.version)
  let template = version?.document ?? null
  for (const one of stored.partsTaken) {
    const newer = await versionById(database, one.templateId, one.version)
    if (template && newer) template = overlay(template, newer.document, one)
  }
  const strengths =
    stored.strengthsVersion === null
      ? null
      : await versionById(database, stored.templateId, stored.strengthsVersion)
  return template && strengths ? withStrengthsOf(template, strengths.document) : template
}

/** What a plan of one course needs to know of every item: whether any of it is shown anywhere. */
export const showsHouseText = (template: Template, houseText: string): boolean =>
  [...template.home.blocks, ...everyItem(template).flatMap((item) => item.blocks)].some(
    (block) => block.kind === 'house-text' && block.houseText === houseText,
  )
