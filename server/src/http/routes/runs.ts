import { CheckRequest, PlanRequest, RolloutRequest, type CoursePlan } from '@wickerframe/contract'
import { planFor } from '../../jobs/deploymentPlan.ts'
import { listCourses, type StoredCourse } from '../../repositories/courses.ts'
import { findBase } from '../../repositories/deployments.ts'
import { commandRun, createRun, findRun, listRuns, mayFollowRun, runPulse, type Command } from '../../repositories/runs.ts'
import { storeSnapshot } from '../../repositories/snapshots.ts'
import { findVersion, isRetired, type Version } from '../../repositories/templates.ts'
import { inTransaction } from '@wickerframe/storage'
import { bodyOf, numberIn, type Handler, type Handling } from '../handler.ts'
import { HttpProblem, notFound } from '../problem.ts'
import { courseIn } from './courses.ts'

const versionOf = async ({ pool }: Handling, template: string, number: number): Promise<Version> => {
  const version = await findVersion(pool, template, number)
  if (!version) throw notFound('version')
  if (await isRetired(pool, version)) throw new HttpProblem(409, 'retired', `version ${number} is retired; courses under it keep it, and no others get it. Choose a newer one, or bring it back`)
  return version
}

const coursesOf = async ({ pool, person, today }: Handling, ids: readonly number[]): Promise<StoredCourse[]> => {
  const wanted = new Set(ids)
  const found = (await listCourses(pool, person, today)).filter((stored) => wanted.has(stored.summary.id))
  if (found.length < wanted.size) throw notFound('course among those chosen')
  return found
}

const planOne = async ({ pool, connector, today }: Handling, version: Version, stored: StoredCourse): Promise<CoursePlan> => {
  const { id, code, title, classSections, platformId, status } = stored.summary
  const told = (state: CoursePlan['state'], reason: string): CoursePlan => ({ course: id, code, title, classSections, state, reason, steps: [], timeZone: stored.facts.term.timeZone, digest: '' })
  if (status !== 'teaching' && status !== 'preparing') return told('left-out', `the course is ${status}`)
  const read = await connector.snapshot(platformId)
  if (read.state !== 'answered') return told('unusable', read.state === 'refused' && read.status === 404 ? `the platform has no course ${platformId}` : `the platform did not give the course: ${read.detail}`)
  await inTransaction(pool, (database) => storeSnapshot(database, id, read.value))
  const planned = planFor(version.document, stored.facts, read.value, await findBase(pool, id), today)
  if (!planned.ok) return told('unusable', `the template does not fit: ${planned.problems.map((problem) => `${problem.path.slice(1)} is ${problem.found}, expected ${problem.expected}`).join('; ')}`)
  const { plan, digest } = planned.value
  if (plan.state === 'left-out') return told('left-out', plan.reason)
  return { ...told(plan.state, plan.state === 'nothing-to-do' ? 'everything of this version is there already' : misfitOf(version, stored)), steps: plan.steps, digest }
}

/** A word of warning when the template is meant for other courses than this one; empty when it fits. */
const misfitOf = ({ document: { appliesTo } }: Version, { summary }: StoredCourse): string => {
  const misfits = [
    ...(appliesTo.weeks.length > 0 && !appliesTo.weeks.includes(summary.weeks) ? [`${appliesTo.weeks.join(' or ')} weeks, and this course has ${summary.weeks}`] : []),
    ...(appliesTo.modalities.length > 0 && !appliesTo.modalities.includes(summary.modality) ? [`${appliesTo.modalities.join(' or ')} courses, and this one is ${summary.modality}`] : []),
    ...(appliesTo.departments.length > 0 && !appliesTo.departments.includes(summary.department) ? [`${appliesTo.departments.join(' or ')}, and this is ${summary.department}`] : []),
  ]
  return misfits.length > 0 ? `Take care: the template is meant for ${misfits.join('; for ')}.` : ''
}

/** Plans in small groups at a time, so that the platform is not run over. */
const inGroups = async <T, R>(all: readonly T[], size: number, work: (one: T) => Promise<R>): Promise<R[]> => {
  const results: R[] = []
  for (let i = 0; i < all.length; i += size) results.push(...(await Promise.all(all.slice(i, i + size).map(work))))
  return results
}

export const postPlans: Handler = async (handling) => {
  const { template, version, courses } = bodyOf(PlanRequest, handling.request)
  const found = await versionOf(handling, template, version)
  return inGroups(await coursesOf(handling, courses), 8, (stored) => planOne(handling, found, stored))
}

export const postRollout: Handler = async (handling) => {
  const { pool, request, person } = handling
  const wanted = bodyOf(RolloutRequest, request)
  const version = await versionOf(handling, wanted.template, wanted.version)
  await coursesOf(handling, wanted.courses.map((one) => one.course))
  const run = await createRun(pool, {
    kind: 'rollout', title: `${version.document.title}, version ${version.number}, to ${wanted.courses.length} ${wanted.courses.length === 1 ? 'course' : 'courses'}`, by: person.email, asOf: null,
    templateId: version.templateId, version: version.number, tasks: wanted.courses.map((one) => ({ courseId: one.course, planDigest: one.planDigest })),
  })
  return { run }
}

const checkRun = async ({ pool, person }: Handling, courses: readonly StoredCourse[], asOf: string): Promise<{ run: number }> => {
  if (courses.length === 0) throw new HttpProblem(409, 'nothing-to-check', 'there is no course to check; import a roster first')
  return {
    run: await createRun(pool, {
      kind: 'check', title: `${courses.length} ${courses.length === 1 ? 'course' : 'courses'} as of ${asOf}`, by: person.email, asOf, templateId: null, version: null,
      tasks: courses.map((stored) => ({ courseId: stored.summary.id, planDigest: null })),
    }),
  }
}

export const postChecks: Handler = async (handling) => {
  const { request, today, pool, person } = handling
  const { courses, asOf = today } = bodyOf(CheckRequest, request)
  const chosen = courses ? await coursesOf(handling, courses) : (await listCourses(pool, person, today)).filter((stored) => stored.summary.status === 'teaching')
  return checkRun(handling, chosen, asOf)
}

export const postCourseCheck: Handler = async (handling) => {
  const { asOf = handling.today } = bodyOf(CheckRequest, handling.request)
  return checkRun(handling, [await courseIn(handling)], asOf)
}

export const getRollouts: Handler = async ({ pool }) => listRuns(pool, ['rollout', 'renames'])

/** The run of the address, if it is there and theirs to see: an instructor's when all its courses are. */
const runIn = async ({ pool, request, person }: Handling): Promise<number> => {
  const id = numberIn(request, 'run', 'run')
  if (!(await mayFollowRun(pool, id, person))) throw notFound('run')
  return id
}

export const getRun: Handler = async (handling) => {
  const run = await findRun(handling.pool, await runIn(handling))
  if (!run) throw notFound('run')
  return run
}

export const command = (name: Command): Handler => async ({ pool, request, person }) => {
  if (!(await commandRun(pool, numberIn(request, 'run', 'run'), name, person.email))) throw notFound('run')
  return {}
}

const pulseMilliseconds = 400

/** Says `changed` whenever something of the run did; the client then fetches the state. Ends with the run. */
export const getRunEvents: Handler = async (handling) => {
  const { pool, request, response } = handling
  const id = await runIn(handling)
  let last = await runPulse(pool, id)
  if (last === null) throw notFound('run')
  response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' })
  response.flushHeaders()
  let open = true
  request.on('close', () => (open = false))
  const say = (pulse: string) => response.write(`event: changed\ndata: ${JSON.stringify({ pulse })}\n\n`)
  say(last)
  while (open) {
    await new Promise((resolve) => setTimeout(resolve, pulseMilliseconds))
    const pulse = await runPulse(pool, id).catch(() => last)
    if (!open || pulse === null) break
    if (pulse !== last) say((last = pulse))
    if (/^(done|cancelled):/.test(pulse) && !/(waiting|at-work|sent)[1-9]/.test(pulse)) break
  }
  response.end()
  return undefined
}
