import type { ChosenMend, MendableRule, mendRoutes } from '@wickerframe/contract'
import { mayToCourse } from '../courses/visible.ts'
import type { HandlersOf, Situation } from '../http/handler.ts'
import {
  changesInWords,
  findingsOf,
  ruleById,
  standsIn,
  type Course,
  type Finding,
} from '@wickerframe/core'
import type { ProposedMend } from './mendTask.ts'
import { namedCourse } from '../conformance/checkedCourses.ts'
import { listChecks } from '../checks/checkDigests.ts'
import { findCheck, findingsOfCourses } from '../checks/checks.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { listSnapshots } from '../snapshots/snapshots.ts'
import { askedRun } from '../runs/askedRun.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { courseIn } from '../courses/routes.ts'

const notOpen = () =>
  new HttpProblem(
    409,
    'not-open',
    'one of the findings is mended already, or Wickerframe does not know its mend; check again',
  )

/** The chosen mends of a course with the sentences of their findings and what they change. @throws HttpProblem 409 when one is open no more */
const proposed = (
  findings: readonly Finding[],
  mends: readonly ChosenMend[],
  course: Course | undefined,
  timeZone: string,
): ProposedMend[] => {
  const places = new Map(
    findings.flatMap((finding) =>
      finding.places.map((place) => [place.fingerprint, place] as const),
    ),
  )
  return mends.map((mend) => {
    const place = places.get(mend.fingerprint)
    if (!place?.mend) throw notOpen()
    return {
      ...mend,
      message: place.message,
      changes: course ? changesInWords(place.mend, course, timeZone).map(({ says }) => says) : [],
    }
  })
}

interface Proposed {
  courseId: number
  proposal: ProposedMend[]
}

/**
 * What would be mended in each of these courses, in their order; those in which nothing is chosen are left out.
 * @param chosenOf the mends of a course that are chosen, from its findings
 * @throws HttpProblem 409 when one is open no more
 */
const proposals = async (
  { pool, today }: Situation,
  courses: readonly StoredCourse[],
  chosenOf: (course: number, findings: readonly Finding[]) => readonly ChosenMend[],
): Promise<Proposed[]> => {
  const byCourse = new Map<number, ProposedMend[]>()
  const zones = new Map(courses.map(({ summary, facts }) => [summary.id, facts.term.timeZone]))
  for await (const checked of findingsOfCourses(pool, [...zones.keys()], today)) {
    const chosen = [...checked]
      .map(([id, findings]) => ({ id, findings, mends: chosenOf(id, findings) }))
      .filter(({ mends }) => mends.length > 0)
    if (chosen.length === 0) continue
    const snapshots = await listSnapshots(
      pool,
      chosen.map(({ id }) => id),
    )
    for (const { id, findings, mends } of chosen)
      byCourse.set(id, proposed(findings, mends, snapshots.get(id), zones.get(id) ?? 'UTC'))
  }
  return [...zones.keys()].flatMap((courseId) => {
    const proposal = byCourse.get(courseId)
    return proposal ? [{ courseId, proposal }] : []
  })
}

/** A plan of proposed mends, to be read and approved. */
const planned = async (
  { pool, person }: Situation,
  tasks: Proposed[],
): Promise<{ run: number }> => {
  const count = tasks.reduce((sum, task) => sum + task.proposal.length, 0)
  return {
    run: await askedRun(
      { pool },
      {
        kind: 'mends',
        state: 'planned',
        title: `${count} ${count === 1 ? 'mend' : 'mends'} in ${tasks.length} ${tasks.length === 1 ? 'course' : 'courses'}`,
        by: person.email,
        asOf: null,
        templateId: null,
        version: null,
        tasks,
      },
    ),
  }
}

export const mendHandlers: HandlersOf<typeof mendRoutes> = {
  /** Mends one's own course: what was chosen was shown with every change, so it runs at once. */
  mendCourse: async (handling) => {
    const { pool, person, today, body } = handling
    const stored = await courseIn(handling)
    const { mends } = body
    const result = await findCheck(pool, stored.summary.id, today)
    if (!result) throw new HttpProblem(409, 'not-checked', 'the course has not been checked yet')
    const chosen = new Set(mends.map((mend) => mend.fingerprint))
    if (
      result.findings.some(
        (finding) =>
          finding.mender === 'administrator' &&
          finding.places.some((place) => chosen.has(place.fingerprint)),
      ) &&
      !(await mayToCourse(pool, person, 'mend for administrators', stored.summary.id))
    )
      throw new HttpProblem(403, 'role', 'one of these is an administrator’s to mend')
    const proposal = proposed(
      result.findings,
      mends,
      (await listSnapshots(pool, [stored.summary.id])).get(stored.summary.id),
      stored.facts.term.timeZone,
    )
    return {
      run: await askedRun(
        { pool },
        {
          kind: 'mends',
          state: 'running',
          title: `${mends.length} ${mends.length === 1 ? 'mend' : 'mends'} in ${stored.summary.code} ${stored.summary.title}`,
          by: person.email,
          asOf: null,
          templateId: null,
          version: null,
          tasks: [{ courseId: stored.summary.id, proposal }],
        },
      ),
    }
  },
  /** Plans chosen mends in many courses; nothing is written until the plan is approved. */
  planMends: async (handling) => {
    const { courses } = handling.body
    if (new Set(courses.map(({ course }) => course)).size < courses.length)
      throw new HttpProblem(
        400,
        'unusable-input',
        'at /courses: found a course twice; expected each once',
      )
    const { person, pool, today } = handling
    const visible = new Map(
      (await listCourses(pool, person, today)).map((stored) => [stored.summary.id, stored]),
    )
    const chosen = new Map(courses.map(({ course, mends }) => [course, mends]))
    const tasks = await proposals(
      handling,
      courses.map(({ course }) => {
        const stored = visible.get(course)
        if (!stored) throw notFound('course among those named')
        return stored
      }),
      (course) => chosen.get(course) ?? [],
    )
    // One that has no check any more has nothing open that is known.
    if (tasks.length < courses.length) throw notOpen()
    return planned(handling, tasks)
  },
  planMendsOf: async (handling) => {
    const { person, pool, today, body } = handling
    const checks = await listChecks(pool, today)
    const tasks = await proposals(
      handling,
      (await listCourses(pool, person, today)).filter(
        ({ summary: { id, status } }) =>
          status === 'teaching' && standsIn(checks.get(id)?.openMusts ?? [], body),
      ),
      (_course, findings) =>
        findingsOf(findings, body).flatMap(({ places }) =>
          places.flatMap(({ mend, fingerprint, digest }) => (mend ? { fingerprint, digest } : [])),
        ),
    )
    if (tasks.length === 0)
      throw new HttpProblem(
        409,
        'nothing-to-mend',
        'it is mended already, or Wickerframe does not know its mend; check again',
      )
    return planned(handling, tasks)
  },
  /** What Wickerframe could mend by itself, by rule; for one rule, every place of it. */
  listMends: async ({ pool, person, today, query }) => {
    const wanted = query.rule
    if (wanted !== undefined && !ruleById(wanted))
      throw new HttpProblem(
        400,
        'unusable-input',
        `rule: found ${wanted}; expected the id of a rule`,
      )
    const courses = (await listCourses(pool, person, today)).filter(
      ({ summary }) => summary.status === 'teaching',
    )
    const checks = await listChecks(pool, today)
    const byRule = new Map<string, MendableRule>()
    for (const { summary } of courses)
      for (const { rule, title, places } of checks.get(summary.id)?.openMends ?? []) {
        if (wanted !== undefined && rule !== wanted) continue
        const known = byRule.get(rule) ?? { rule, title, places: 0, courses: [] }
        known.places += places.length
        const { id, ...named } = namedCourse(summary)
        known.courses.push({ course: id, ...named, mends: [...places] })
        byRule.set(rule, known)
      }
    return [...byRule.values()].sort((a, b) => b.places - a.places)
  },
}
