import type { ChosenMend, MendableRule, mendRoutes } from '@wickerframe/contract'
import { mayToCourse } from '../courses/visible.ts'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { changesInWords, findingsOf, ruleById, type Course, type Finding } from '@wickerframe/core'
import type { ProposedMend } from './mendTask.ts'
import { listChecks, type CheckDigest } from '../checks/checkDigests.ts'
import { findCheck } from '../checks/checks.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { listSnapshots } from '../snapshots/snapshots.ts'
import { askedRun } from '../runs/askedRun.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { courseIn } from '../courses/routes.ts'

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
    if (!place?.mend)
      throw new HttpProblem(
        409,
        'not-open',
        'one of the findings is mended already, or Wickerframe does not know its mend; check again',
      )
    return {
      ...mend,
      message: place.message,
      changes: course ? changesInWords(place.mend, course, timeZone).map(({ says }) => says) : [],
    }
  })
}

/** A plan of chosen mends, to be read and approved. @throws HttpProblem 404 for a course that is not theirs to see, 409 when a finding is open no more */
const planned = async (
  { pool, person }: Situation,
  courses: readonly { course: number; mends: readonly ChosenMend[] }[],
  visible: readonly StoredCourse[],
  checks: ReadonlyMap<number, CheckDigest>,
): Promise<{ run: number }> => {
  const storedById = new Map(visible.map((stored) => [stored.summary.id, stored]))
  const snapshots = await listSnapshots(
    pool,
    courses.map(({ course }) => course),
  )
  const tasks = courses.map(({ course, mends }) => {
    const stored = storedById.get(course)
    if (!stored) throw notFound('course among those named')
    return {
      courseId: course,
      proposal: proposed(
        checks.get(course)?.findings ?? [],
        mends,
        snapshots.get(course),
        stored.facts.term.timeZone,
      ),
    }
  })
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
    return planned(
      handling,
      courses,
      await listCourses(pool, person, today),
      await listChecks(pool, today),
    )
  },
  planMendsOf: async (handling) => {
    const { person, pool, today, body } = handling
    const visible = await listCourses(pool, person, today)
    const checks = await listChecks(pool, today)
    const courses = visible
      .filter(({ summary }) => summary.status === 'teaching')
      .map(({ summary: { id } }) => ({
        course: id,
        mends: findingsOf(checks.get(id)?.findings ?? [], body).flatMap(({ places }) =>
          places.flatMap(({ mend, fingerprint, digest }) => (mend ? { fingerprint, digest } : [])),
        ),
      }))
      .filter(({ mends }) => mends.length > 0)
    if (courses.length === 0)
      throw new HttpProblem(
        409,
        'nothing-to-mend',
        'it is mended already, or Wickerframe does not know its mend; check again',
      )
    return planned(handling, courses, visible, checks)
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
      (stored) => stored.summary.status === 'teaching',
    )
    const checks = await listChecks(pool, today)
    const byRule = new Map<string, MendableRule>()
    for (const { summary } of courses)
      for (const finding of checks.get(summary.id)?.findings ?? []) {
        if (wanted !== undefined && finding.rule !== wanted) continue
        const mends = finding.places.flatMap((place) =>
          place.mend && !place.waived
            ? [{ fingerprint: place.fingerprint, digest: place.digest, message: place.message }]
            : [],
        )
        if (mends.length === 0) continue
        const known = byRule.get(finding.rule) ?? {
          rule: finding.rule,
          title: finding.title,
          places: 0,
          courses: [],
        }
        known.places += mends.length
        const there = known.courses.find((course) => course.course === summary.id)
        if (there) there.mends.push(...mends)
        else
          known.courses.push({
            course: summary.id,
            platformId: summary.platformId,
            code: summary.code,
            title: summary.title,
            classSections: summary.classSections,
            mends,
          })
        byRule.set(finding.rule, known)
      }
    return [...byRule.values()].sort((a, b) => b.places - a.places)
  },
}
