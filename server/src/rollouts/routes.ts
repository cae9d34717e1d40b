import type { CoursePlan, RolloutOrder, RolloutRequest, rolloutRoutes } from '@wickerframe/contract'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { randomUUID } from 'node:crypto'
import { isWorkedOut } from '@wickerframe/core'
import { planCourse, showsHouseText } from './deploymentPlan.ts'
import { versionById } from '../templates/versions.ts'
import { findCourse, listCourses } from '../courses/courses.ts'
import { coursesOfRun } from './deployments.ts'
import { filesSent } from '../files/sendFiles.ts'
import { withPublicAddresses } from '../library/publicAddresses.ts'
import { heldThere } from '../files/heldThere.ts'
import { putAssets } from '../files/putAssets.ts'
import { addRehearsal, discardRehearsal, findRehearsal, listRehearsals } from './rehearsals.ts'
import { decide, findPlanned, shapesOf } from './plans.ts'
import { findRun, listRuns } from '../runs/runs.ts'
import { findSnapshot } from '../snapshots/snapshots.ts'
import { findVersion, isRetired, type Version } from '../templates/templates.ts'
import { askedRun } from '../runs/askedRun.ts'
import { coursesOf } from '../courses/routes.ts'
import { runIn } from '../runs/routes.ts'
import { HttpProblem, notFound } from '../http/problem.ts'

const versionOf = async (
  { pool }: Situation,
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

const noun = (count: number): string => `${count} ${count === 1 ? 'course' : 'courses'}`

const coursesShowing = async (
  { pool, person, today }: Situation,
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
  handling: Situation,
  order: RolloutOrder,
  title: string,
  version: Version | null,
  courses: readonly number[],
  wanted: Pick<RolloutRequest, 'rule' | 'standing' | 'sources'>,
): Promise<{ run: number }> => {
  if (courses.length === 0)
    throw new HttpProblem(409, 'no-courses', 'there is no course to plan for')
  const from = new Map(wanted.sources.map((source) => [source.course, source.from]))
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

/** What was taken back is brought back by the same way. */
const titleOfUndo = (title: string): string =>
  (title.startsWith('Take back: ')
    ? title.replace('Take back: ', 'Bring back: ')
    : `Take back: ${title.replace(/^Bring back: /, '')}`
  ).slice(0, 300)

const undo = async (
  handling: Situation,
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

/** A course of a rollout with its plan, made again from what was read: planning is pure. */
const plannedIn = async ({
  pool,
  person,
  today,
  at: { run, course },
}: Situation & { at: { run: number; course: number } }) => {
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

export const rolloutHandlers: HandlersOf<typeof rolloutRoutes> = {
  listRollouts: async ({ pool, person }) => listRuns(pool, ['rollout', 'renames', 'mends'], person),
  planRollout: async (handling) => {
    const { body } = handling
    const wanted = body
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
    await coursesOf(handling, [...chosen, ...wanted.sources.map((source) => source.from)])
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
  },
  rolloutShapes: async (handling) => shapesOf(handling.pool, await runIn(handling)),
  coursePlan: async (handling) => {
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
    const planned = await planCourse(
      handling.pool,
      decided,
      stored,
      snapshot.course,
      handling.today,
    )
    if ('unusable' in planned) return { ...without, state: 'unusable', reason: planned.unusable }
    if (!isWorkedOut(planned.plan)) return without
    const { shape: _, lines: __, ...summary } = planned.summary
    return { ...told, ...summary, steps: planned.plan.steps }
  },
  decideConflicts: async ({ pool, person, at, body }) => {
    const outcome = await decide(pool, at.run, body, person.email)
    if (outcome === 'missing') throw notFound('rollout')
    if (outcome === 'too-late')
      throw new HttpProblem(
        409,
        'too-late',
        'the rollout has begun; what is open can be decided in a new one',
      )
    return {}
  },
  /** Carries a plan out on a copy of its course on the platform. */
  rehearse: async (handling) => {
    const { pool, connector, person, today, now, platformUrl, publicUrl } = handling
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
    if (
      !('unusable' in planned) &&
      planned.plan.state === 'ready' &&
      planned.plan.changes.length > 0
    ) {
      // As in the course itself: with its images, its files filled, and linked texts leading to where they are kept.
      const halted = await putAssets(connector, planned.template?.assets ?? [])
      const sending = halted
        ? { outcome: halted }
        : await filesSent(pool, connector, withPublicAddresses(planned.plan.changes, publicUrl))
      if ('outcome' in sending)
        throw new HttpProblem(
          502,
          'platform',
          `the copy was made, but nothing was deployed to it: ${'message' in sending.outcome ? sending.outcome.message : ''}`,
        )
      const answer = await connector.apply(id, randomUUID(), {
        expectedRevision: copy.revision,
        changes: sending.changes,
      })
      if (answer.state === 'refused' && answer.code === 'no-content') heldThere.forget()
      answered(answer)
    }
    return {
      id,
      course: stored.summary.id,
      address: new URL(`/courses/${id}`, platformUrl).href,
      createdAt: now,
    }
  },
  undoRollout: (handling) => undo(handling, handling.at.run, handling.body.courses ?? []),
  listRehearsals: async ({ pool, person, platformUrl }) =>
    listRehearsals(pool, platformUrl, person),
  discardRehearsal: async ({ pool, connector, person, at }) => {
    const id = at.rehearsal
    if (!(await findRehearsal(pool, id, person))) throw notFound('rehearsal')
    const gone = await connector.discard(id)
    if (gone.state !== 'answered' && !(gone.state === 'refused' && gone.status === 404))
      throw new HttpProblem(
        502,
        'platform',
        `the platform did not throw it away: ${gone.detail}; try again`,
      )
    await discardRehearsal(pool, id)
    return {}
  },
}
