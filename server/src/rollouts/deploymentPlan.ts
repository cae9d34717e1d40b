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
  type CarryKind,
  type PartsTaken,
  type Course,
  type Decisions,
  type ExpectedCourse,
  type Plan,
  type PlanInput,
  type Problem,
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
import type { Version } from '../templates/templates.ts'
import { versionById, versionByKey } from '../templates/versions.ts'

/** Raised with every change of what a plan or an expansion gives for the same input. */
export const engineVersion = 'wickerframe-15'

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

/** What is planned with: the order, and the course as it is stored and as it was read. */
interface Planning extends PlanOrder {
  database: Database
  stored: StoredCourse
  course: Course
  /** Which revisions of house texts are written. */
  today: string
  base: Base
  bodies: CourseBodies
}

/** A plan with what follows from it for the course. */
interface Made {
  plan: Plan
  expected?: ExpectedCourse
  heldTo?: HeldTo
  undoes?: number
  heldToAgain?: HeldToState | null
  warning?: string
}

const leftOut = (reason: string): Made => ({ plan: { state: 'left-out', reason } })
const problemWords = ({ path, found, expected }: Problem): string =>
  `${path.slice(1)} is ${found}, expected ${expected}`

/**
 * The plan for one course, from what is stored and what was read of it. Reads the database, never the platform.
 * @param today which revisions of house texts are written
 */
export const planCourse = async (
  database: Database,
  order: PlanOrder,
  stored: StoredCourse,
  course: Course,
  today: string,
): Promise<PlannedCourse | { unusable: string }> => {
  const bodies = courseBodies()
  const base = await findBase(database, stored.summary.id)
  const made = await planOf({ ...order, database, stored, course, today, base, bodies })
  if ('unusable' in made) return made
  const { plan, expected = null, heldTo = null, undoes = null, heldToAgain = null } = made
  return plan.state === 'unusable'
    ? unusable(plan.reason)
    : {
        heldToAgain,
        plan,
        summary: summaryOf(plan, made.warning ?? ''),
        base,
        bodies,
        expected,
        template: expected?.template ?? null,
        heldTo,
        undoes,
      }
}

const planOf = async (planning: Planning): Promise<Made | { unusable: string }> => {
  const { base, bodies, course, order, stored } = planning
  const { status } = stored.summary
  if (order.mode !== 'undo' && status !== 'teaching' && status !== 'preparing')
    return leftOut(`the course is ${status}`)
  if (base.parts.length > 0)
    for (const { item } of everyCourseItem(course)) if (item.html !== null) bodies.idOf(item.html)
  if (order.mode === 'undo') return undoOf(planning, order.run)
  const version = await versionFor(planning)
  if (!version)
    return order.mode === 'house-text'
      ? leftOut('nothing was deployed to it')
      : unusable('the version is gone')
  const { facts } = stored
  const expansion = expandForPlan({ template: version.document, facts, course, base })
  if (!expansion.ok)
    return unusable(`the template does not fit: ${expansion.problems.map(problemWords).join('; ')}`)
  const expected = expansion.value
  await bodies.load(planning.database, stored.summary.id, bodiesOfBase(base))
  switch (order.mode) {
    case 'house-text':
      return houseTextOf(planning, expected, order.houseText)
    case 'carry':
      return carriedOf(planning, expected, version, order.carry)
    case 'version':
      return versionOf(planning, expected, version, order)
  }
}

/** The version that an order names; otherwise the one that the course is under. */
const versionFor = async ({
  database,
  order,
  stored: { templateId, version },
}: Planning): Promise<Version | null> => {
  if (order.mode === 'version' || order.mode === 'carry')
    return versionByKey(database, order.template, order.version)
  return templateId !== null && version !== null ? versionById(database, templateId, version) : null
}

const undoOf = async (
  { base, bodies, course, database, stored }: Planning,
  run: number,
): Promise<Made> => {
  const { id } = stored.summary
  const deployment = await findDeploymentOfRun(database, run, id)
  if (!deployment) return leftOut('that rollout did nothing here, or it was taken back already')
  await bodies.load(database, id, [...bodiesOfBase(base), ...bodiesOfRecord(deployment.undo)])
  return {
    plan: planUndo({ record: deployment.undo, course, base, bodies }),
    undoes: deployment.number,
    heldToAgain: deployment.heldToBefore,
  }
}

const inputOf = (
  { base, bodies, course, decisions, today }: Planning,
  expected: ExpectedCourse,
): PlanInput => ({ expected, course, base, bodies, onDate: today, decisions })

const wholly = ({ templateId, number }: Version): NonNullable<HeldTo> => ({
  templateId,
  version: number,
  partsTaken: null,
})

const houseTextOf = (planning: Planning, expected: ExpectedCourse, houseText: string): Made => {
  const blocks = blocksShowing(expected, houseText)
  if (planning.base.parts.length === 0 || blocks.length === 0)
    return leftOut('it does not show this house text')
  const plan = planDeployment({ ...inputOf(planning, expected), only: { parts: [], blocks } })
  return { plan, expected }
}

const carriedOf = async (
  planning: Planning,
  expected: ExpectedCourse,
  version: Version,
  carry: readonly CarryKind[],
): Promise<Made | { unusable: string }> => {
  const { base, bodies, course, database, sourceCourseId, today } = planning
  if (base.parts.length > 0 || !isShell(course)) return leftOut('the course is no shell any more')
  const neverRead = unusable('the course it comes from was never read')
  if (sourceCourseId === null) return neverRead
  const source = await findCourse(database, sourceCourseId, 'system', today)
  const snapshot = await findSnapshot(database, sourceCourseId)
  if (!source || !snapshot) return neverRead
  const sourceBase = await findBase(database, sourceCourseId)
  await bodies.load(database, sourceCourseId, bodiesOfBase(sourceBase))
  const plan = carryOver(
    planDeployment(inputOf(planning, expected)),
    expected,
    { course: snapshot.course, base: sourceBase, bodies, facts: source.facts },
    new Set(carry),
  )
  return { plan, expected, heldTo: wholly(version) }
}

/** For a course with content of its own: which part of the version is what there. */
const adopted = (expected: ExpectedCourse, course: Course): ReadonlyMap<string, string> =>
  new Map(
    pairCourse(expected, course, ({ html }) =>
      html === null ? null : analysePage(html),
    ).pairs.map((pair) => [pair.expected, pair.found]),
  )

/** Keys of parts with a conflict that nobody has decided on. */
const undecidedParts = (plan: Plan): string[] =>
  isWorkedOut(plan)
    ? plan.steps
        .filter(({ fields }) =>
          fields.some(({ decided, does }) => does === 'conflict' && decided === null),
        )
        .map(({ part }) => part)
    : []

const versionOf = (
  planning: Planning,
  expected: ExpectedCourse,
  version: Version,
  { adopt, except, only, restore }: RolloutOrder & { mode: 'version' },
): Made => {
  const { base, course, stored } = planning
  const isNew = base.parts.length === 0
  if (only && isNew)
    return leftOut('nothing was deployed to it yet, so there is nothing to bring single parts into')
  const plan = planDeployment({
    ...inputOf(planning, expected),
    only,
    except,
    restore,
    ...(isNew && adopt && !isShell(course) ? { adopt: adopted(expected, course) } : {}),
  })
  const leftAlone = [...new Set([...except, ...undecidedParts(plan)])]
  const brought = only && [...only.parts, ...only.blocks.map((block) => block.split('/')[0] ?? '')]
  const isWhole = brought === null && leftAlone.length === 0
  return {
    plan,
    expected,
    heldTo: {
      ...wholly(version),
      partsTaken: isWhole ? null : { only: brought, except: leftAlone },
    },
    warning: misfitOf(version.document, stored),
  }
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
  for (const taken of stored.partsTaken) {
    const newer = await versionById(database, taken.templateId, taken.version)
    if (template && newer) template = overlay(template, newer.document, taken)
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
