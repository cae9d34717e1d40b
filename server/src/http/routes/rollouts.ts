import { randomUUID } from 'node:crypto'
import {
  ApproveRequest,
  DecideRequest,
  RolloutRequest,
  UndoRequest,
  type CoursePlan,
  type Rehearsal,
  type RolloutOrder,
} from '@wickerframe/contract'
import { isWorkedOut } from '@wickerframe/core'
import { planCourse, showsHouseText } from '../../jobs/deploymentPlan.ts'
import { versionById } from '../../jobs/versions.ts'
import { findCourse, listCourses, type StoredCourse } from '../../repositories/courses.ts'
import { coursesOfRun } from '../../repositories/deployments.ts'
import {
  addRehearsal,
  discardRehearsal,
  findRehearsal,
  listRehearsals,
} from '../../repositories/rehearsals.ts'
import { decide, findPlanned, plansChanged, shapesOf } from '../../repositories/plans.ts'
import { commandRun, findRun, listRuns } from '../../repositories/runs.ts'
import { findSnapshot } from '../../repositories/snapshots.ts'
import { findVersion, isRetired, type Version } from '../../repositories/templates.ts'
import { askedRun } from '../askedRun.ts'
import { bodyOf, numberIn, parameter, type Handler, type Handling } from '../handler.ts'
import { HttpProblem, notFound } from '../problem.ts'

const versionOf = async (
  { pool }: Handling,
  template: string,
  number: number,
): Promise<Version> => {
  const version = await findVersion(pool, template, number)
  if (!version) throw notFound('version')
  if (await isRetired(pool, version))
    throw new HttpProblem(
      409,
      'retired',
      `version ${number} is retired; courses under it keep it, and no others get it. Choose a newer one, or bring it back`,
    )
  return version
}

/** Courses by their ids, all of them. @throws HttpProblem 404 when one is not there */
export const coursesOf = async (
  { pool, person, today }: Handling,
  ids: readonly number[],
): Promise<StoredCourse[]> => {
  const wanted = new Set(ids)
  const found = (await listCourses(pool, person, today)).filter((stored) =>
    wanted.has(stored.summary.id),
  )
  if (found.length < wanted.size) throw notFound('course among those chosen')
  return found
}

const noun = (count: number): string => `${count} ${count === 1 ? 'course' : 'courses'}`

const coursesShowing = async (
  { pool, person, today }: Handling,
  houseText: string,
): Promise<number[]> => {
  const showing: number[] = []
  for (const stored of await listCourses(pool, person, today)) {
    if (
      stored.templateId === null ||
      stored.version === null ||
      stored.summary.state !== 'deployed'
    )
      continue
    const version = await versionById(pool, stored.templateId, stored.version)
    if (version && showsHouseText(version.document, houseText)) showing.push(stored.summary.id)
  }
  return showing
}

/** Makes a rollout that plans first. */
const begin = async (
  handling: Handling,
  order: RolloutOrder,
  title: string,
  version: Version | null,
  courses: readonly number[],
  wanted: Pick<RolloutRequest, 'rule' | 'standing' | 'sources'>,
): Promise<{ run: number }> => {
  if (courses.length === 0)
    throw new HttpProblem(409, 'no-courses', 'there is no course to plan for')
  const from = new Map(wanted.sources.map((one) => [one.course, one.from]))
  return {
    run: await askedRun(handling, {
      kind: 'rollout',
      state: 'planning',
      title,
      by: handling.person.email,
      asOf: null,
      templateId: version?.templateId ?? null,
      version: version?.number ?? null,
      rollout: { order, rule: wanted.rule, standing: wanted.standing },
      tasks: courses.map((courseId) => ({
        courseId,
        ...(from.has(courseId) ? { sourceCourseId: from.get(courseId) ?? 0 } : {}),
      })),
    }),
  }
}

export const postRollout: Handler = async (handling) => {
  const wanted = bodyOf(RolloutRequest, handling.request)
  const { order } = wanted
  const chosen = [...new Set(wanted.courses)]
  if (order.mode === 'undo') return undo(handling, order.run, chosen)
  if (order.mode === 'house-text') {
    const courses = chosen.length > 0 ? chosen : await coursesShowing(handling, order.houseText)
    await coursesOf(handling, courses)
    return begin(
      handling,
      order,
      `House text ${order.houseText}, as it is worded now, to ${noun(courses.length)}`,
      null,
      courses,
      wanted,
    )
  }
  const version = await versionOf(handling, order.template, order.version)
  if (chosen.length === 0)
    throw new HttpProblem(
      400,
      'unusable-input',
      'at /courses: found none; expected at least one course',
    )
  await coursesOf(handling, [...chosen, ...wanted.sources.map((one) => one.from)])
  if (order.mode === 'carry' && wanted.sources.length < chosen.length)
    throw new HttpProblem(
      400,
      'unusable-input',
      'at /sources: every course names the one it comes from',
    )
  const part = order.mode === 'version' && order.only ? 'parts of ' : ''
  return begin(
    handling,
    order,
    `${part}${version.document.title}, version ${version.number}, to ${noun(chosen.length)}`,
    version,
    chosen,
    wanted,
  )
}

/** What was taken back is brought back by the same way. */
const titleOfUndo = (title: string): string =>
  (title.startsWith('Take back: ')
    ? title.replace('Take back: ', 'Bring back: ')
    : `Take back: ${title.replace(/^Bring back: /, '')}`
  ).slice(0, 300)

const undo = async (
  handling: Handling,
  run: number,
  chosen: readonly number[],
): Promise<{ run: number }> => {
  const undone = await findRun(handling.pool, run)
  if (!undone || undone.kind !== 'rollout') throw notFound('rollout')
  const done = await coursesOfRun(handling.pool, run)
  const courses = chosen.length > 0 ? chosen.filter((course) => done.includes(course)) : done
  if (courses.length === 0)
    throw new HttpProblem(
      409,
      'nothing-to-undo',
      'this rollout did nothing in these courses, or it was taken back already',
    )
  return begin(handling, { mode: 'undo', run }, titleOfUndo(undone.title), null, courses, {
    rule: null,
    standing: false,
    sources: [],
  })
}

export const postUndo: Handler = async (handling) =>
  undo(
    handling,
    numberIn(handling.request, 'run', 'rollout'),
    bodyOf(UndoRequest, handling.request).courses ?? [],
  )

export const getRollouts: Handler = async ({ pool }) =>
  listRuns(pool, ['rollout', 'renames', 'mends'])

export const getShapes: Handler = async ({ pool, request }) =>
  shapesOf(pool, numberIn(request, 'run', 'rollout'))

/** A course of a rollout with its plan, made again from what was read: planning is pure. */
const plannedIn = async (handling: Handling) => {
  const { pool, request, person, today } = handling
  const run = numberIn(request, 'run', 'rollout')
  const course = numberIn(request, 'course', 'course')
  const stored = await findCourse(pool, course, person, today)
  const task = stored && (await findPlanned(pool, run, course))
  if (!stored || !task) throw notFound('plan')
  return {
    run,
    stored,
    task,
    decided: {
      order: task.stored.order,
      decisions: { rule: task.stored.rule, single: task.decisions },
      sourceCourseId: task.sourceCourseId,
    },
  }
}

export const getCoursePlan: Handler = async (handling): Promise<CoursePlan> => {
  const { stored, task, decided } = await plannedIn(handling)
  const { id, code, title, classSections, readAt } = stored.summary
  const told = {
    course: id,
    code,
    title,
    classSections,
    timeZone: stored.facts.term.timeZone,
    readAt,
  }
  const snapshot = await findSnapshot(handling.pool, id)
  const bare = task.summary ?? {
    state: 'unusable' as const,
    reason: 'it is not planned yet',
    unchanged: 0,
    undecided: 0,
    additive: false,
    consequences: [],
    digest: '',
  }
  const { state, reason, unchanged, undecided, additive, consequences, digest } = bare
  const without: CoursePlan = {
    ...told,
    state,
    reason,
    unchanged,
    undecided,
    additive,
    consequences,
    digest,
    steps: [],
  }
  if (!snapshot) return without
  const planned = await planCourse(handling.pool, decided, stored, snapshot.course, handling.today)
  if ('unusable' in planned) return { ...without, state: 'unusable', reason: planned.unusable }
  if (!isWorkedOut(planned.plan)) return without
  const { shape: _, lines: __, ...summary } = planned.summary
  return { ...told, ...summary, steps: planned.plan.steps }
}

export const postDecisions: Handler = async ({ pool, request, person }) => {
  const outcome = await decide(
    pool,
    numberIn(request, 'run', 'rollout'),
    bodyOf(DecideRequest, request),
    person.email,
  )
  if (outcome === 'missing') throw notFound('rollout')
  if (outcome === 'too-late')
    throw new HttpProblem(
      409,
      'too-late',
      'the rollout has begun; what is open can be decided in a new one',
    )
  return {}
}

export const postApprove: Handler = async ({ pool, request, person }) => {
  const { courses, shown } = bodyOf(
    ApproveRequest,
    request.body === undefined ? Object.assign(request, { body: {} }) : request,
  )
  const run = numberIn(request, 'run', 'run')
  const changed = shown ? await plansChanged(pool, run, shown) : []
  if (changed.length > 0)
    throw new HttpProblem(
      409,
      'changed',
      `${changed.length === 1 ? 'a plan is' : `${changed.length} plans are`} not what you were shown any more: somebody decided something, or a course changed. Look at the plans again, then approve.`,
    )
  const chosen = courses ?? shown?.map((one) => one.course)
  if (!(await commandRun(pool, run, 'approve', person.email, chosen))) throw notFound('run')
  return {}
}

/** Carries a plan out on a copy of its course on the platform. */
export const postRehearsal: Handler = async (handling): Promise<Rehearsal> => {
  const { pool, connector, person, today, now, platformUrl } = handling
  const { run, stored, decided } = await plannedIn(handling)
  const id = `rehearsal-${randomUUID()}`
  const answered = <T>(
    answer: { state: 'answered'; value: T } | { state: string; detail: string },
  ): T => {
    if (answer.state === 'answered' && 'value' in answer) return answer.value
    throw new HttpProblem(
      502,
      'platform',
      `the platform did not make the copy: ${'detail' in answer ? answer.detail : ''}`,
    )
  }
  const copy = answered(await connector.rehearse(id, stored.summary.platformId))
  await addRehearsal(pool, { id, run, course: stored.summary.id, by: person.email })
  const planned = await planCourse(
    pool,
    decided,
    stored,
    { ...copy, id: stored.summary.platformId },
    today,
  )
  if (!('unusable' in planned) && planned.plan.state === 'ready' && planned.plan.changes.length > 0)
    answered(
      await connector.apply(id, randomUUID(), {
        expectedRevision: copy.revision,
        changes: planned.plan.changes,
      }),
    )
  return {
    id,
    course: stored.summary.id,
    address: new URL(`/courses/${id}`, platformUrl).href,
    createdAt: now,
  }
}

export const getRehearsals: Handler = async ({ pool, platformUrl }) =>
  listRehearsals(pool, platformUrl)

export const postDiscard: Handler = async ({ pool, connector, request }) => {
  const id = parameter(request, 'rehearsal')
  if (!(await findRehearsal(pool, id))) throw notFound('rehearsal')
  const gone = await connector.discard(id)
  if (gone.state !== 'answered' && !(gone.state === 'refused' && gone.status === 404))
    throw new HttpProblem(
      502,
      'platform',
      `the platform did not throw it away: ${gone.detail}; try again`,
    )
  await discardRehearsal(pool, id)
  return {}
}
