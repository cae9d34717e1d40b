import type { checkRoutes, ConformanceRow, CourseSummary } from '@wickerframe/contract'
import type { HandlersOf, Situation } from '../http/handler.ts'
import { digestOf } from '../digest.ts'
import { askedRun } from '../runs/askedRun.ts'
import { courseIn, coursesOf, type AboutCourse } from '../courses/routes.ts'
import {
  findingsAtColumn,
  instructionalWeeks,
  mendFirst,
  lettersAlong,
  weaveGroups,
  type CheckResult,
  type Counts,
  type MendAction,
} from '@wickerframe/core'
import { findCheck, listChecks, type CheckDigest } from './checks.ts'
import { listCourses, type StoredCourse } from '../courses/courses.ts'
import { listRuns } from '../runs/runs.ts'
import { findVersionById } from '../templates/templates.ts'
import { listTerms } from '../terms/terms.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { expectationOf } from '../rollouts/deploymentPlan.ts'

/** Courses that count (only teaching ones do), their checks as of a date, and the templates they are held to. */
const checkedCourses = async ({
  pool,
  person,
  today,
  query,
}: Situation & Pick<AboutCourse, 'query'>) => {
  const asOf = query.asOf ?? today
  const courses = (await listCourses(pool, person, asOf)).filter(
    (stored) => stored.summary.status === 'teaching',
  )
  const checks = await listChecks(pool, asOf)
  const versions = new Map<string, NonNullable<Awaited<ReturnType<typeof findVersionById>>>>()
  for (const { templateId, version } of courses) {
    if (templateId === null || version === null || versions.has(`${templateId}/${version}`))
      continue
    const found = await findVersionById(pool, templateId, version)
    if (found) versions.set(`${templateId}/${version}`, found)
  }
  return {
    asOf,
    courses,
    checks,
    templates: [...versions.values()].map((version) => version.document),
  }
}

const actionsOver = (
  courses: readonly StoredCourse[],
  checks: ReadonlyMap<number, CheckDigest>,
  most: number,
): MendAction[] =>
  mendFirst(
    courses.flatMap(({ summary }): Pick<CheckResult, 'course' | 'findings'>[] => {
      const check = checks.get(summary.id)
      return check
        ? [
            {
              course: {
                id: String(summary.id),
                name: summary.title,
                code: summary.code,
                readAt: '',
              },
              findings: check.findings,
            },
          ]
        : []
    }),
    most,
  )

const checkRun = async (
  handling: Situation,
  courses: readonly StoredCourse[],
  asOf: string,
): Promise<{ run: number }> => {
  if (courses.length === 0)
    throw new HttpProblem(
      409,
      'nothing-to-check',
      'there is no course to check; import a roster first',
    )
  return {
    run: await askedRun(handling, {
      kind: 'check',
      title: `${courses.length} ${courses.length === 1 ? 'course' : 'courses'} as of ${asOf}`,
      by: handling.person.email,
      question: digestOf({ asOf, courses: courses.map((stored) => stored.summary.id) }),
      asOf,
      templateId: null,
      version: null,
      tasks: courses.map((stored) => ({ courseId: stored.summary.id })),
    }),
  }
}

export const checkHandlers: HandlersOf<typeof checkRoutes> = {
  checkCourses: async (handling) => {
    const { today, pool, person, body } = handling
    const { courses, asOf = today } = body
    const chosen = courses
      ? await coursesOf(handling, courses)
      : (await listCourses(pool, person, today)).filter(
          (stored) => stored.summary.status === 'teaching',
        )
    return checkRun(handling, chosen, asOf)
  },
  checkCourse: async (handling) => {
    const { body } = handling
    const { asOf = handling.today } = body
    return checkRun(handling, [await courseIn(handling)], asOf)
  },
  today: async (handling) => {
    const { pool, today, person } = handling
    const { courses, checks } = await checkedCourses(handling)
    const terms = await listTerms(pool)
    const term =
      terms.find((term) => term.firstDay <= today && today <= term.lastDay) ??
      terms.find((term) => term.firstDay > today) ??
      terms.at(-1)
    if (!term) throw new HttpProblem(409, 'no-term', 'there is no term yet; add one first')
    const weeks = instructionalWeeks({ term })
    const bySection = new Map<string, CourseSummary[]>()
    for (const { summary } of courses)
      for (const section of summary.classSections) {
        const key = `${summary.code}, class section ${section}`
        bySection.set(key, [...(bySection.get(key) ?? []), summary])
      }
    const notBegun = courses.flatMap(({ summary }) =>
      summary.state === 'deployed' && checks.get(summary.id)?.outlook.begun === false
        ? [summary]
        : [],
    )
    return {
      today,
      term,
      week: weeks.find((week) => week.first <= today && today <= week.last)?.number ?? null,
      weeks: weeks.length,
      notReady: courses
        .flatMap(({ summary }) => {
          const first = checks
            .get(summary.id)
            ?.findings.find((finding) => finding.strength === 'must')
          return first ? [{ course: summary, first: first.message }] : []
        })
        .sort(
          (a, b) =>
            (b.course.check?.counts.openMusts ?? 0) - (a.course.check?.counts.openMusts ?? 0),
        ),
      notBegun,
      noTemplate: courses.flatMap(({ summary }) => (summary.template === null ? [summary] : [])),
      duplicates: [...bySection]
        .filter(([, list]) => list.length > 1)
        .map(([classSection, list]) => ({ classSection, courses: list })),
      failedRollouts: (await listRuns(pool, ['rollout'], person)).filter(
        (run) => run.counts.failed > 0,
      ),
      mendFirst: actionsOver(courses, checks, 4),
      comingDue: courses
        .flatMap(({ summary }) => {
          const coming = checks.get(summary.id)?.outlook.comingDue ?? []
          const [first] = coming
          return first
            ? [
                {
                  course: summary,
                  count: coming.reduce((total, { count }) => total + count, 0),
                  first: first.on,
                },
              ]
            : []
        })
        .sort((a, b) => (a.first < b.first ? -1 : a.first > b.first ? 1 : b.count - a.count)),
      checkedAsOf:
        courses.find(({ summary }) => summary.check !== null)?.summary.check?.asOf ?? null,
    }
  },
  conformance: async (handling) => {
    const { asOf, courses, checks, templates } = await checkedCourses(handling)
    const drawn = courses.flatMap((stored) => {
      const check = checks.get(stored.summary.id)
      return check && stored.summary.check
        ? [{ summary: stored.summary, counted: stored.summary.check, crossings: check.crossings }]
        : []
    })
    const groups = weaveGroups(
      templates,
      drawn.map(({ crossings }) => crossings),
    )
    const columns = groups.flatMap((group) => group.columns)
    const rows = drawn.map(
      ({ summary, counted: { readiness, counts }, crossings }): ConformanceRow => ({
        id: summary.id,
        platformId: summary.platformId,
        code: summary.code,
        title: summary.title,
        classSections: summary.classSections,
        department: summary.department,
        weeks: summary.weeks,
        template: summary.template?.title ?? '',
        owner: summary.instructors.find(({ email }) => email === summary.owner)?.name ?? '',
        readiness,
        openMusts: counts.openMusts,
        openShoulds: counts.openShoulds,
        strands: lettersAlong(crossings, columns),
      }),
    )
    const sum = (count: (counts: Counts) => number) =>
      drawn.reduce((total, { counted }) => total + count(counted.counts), 0)
    return {
      asOf,
      groups,
      rows,
      unchecked: courses.length - rows.length,
      mendFirst: actionsOver(courses, checks, 6),
      totals: {
        courses: courses.length,
        ready: rows.filter((row) => row.readiness === 'ready').length,
        openMusts: sum((counts) => counts.openMusts),
        openShoulds: sum((counts) => counts.openShoulds),
        cannotTell: sum((counts) => counts.cannotTell),
      },
    }
  },
  crossing: async (handling) => {
    const { pool, today, query } = handling
    const stored = await courseIn(handling)
    const template = await expectationOf(pool, stored)
    const result = template && (await findCheck(pool, stored.summary.id, query.asOf ?? today))
    if (!result) throw notFound('check of the course as of this date')
    return {
      findings: findingsAtColumn(result, template, query.column).flatMap((finding) => {
        const [first] = finding.places
        return first && finding.places.some(({ waived }) => waived === null)
          ? [
              {
                fingerprint: first.fingerprint,
                title: finding.title,
                strength: finding.strength,
                message: finding.message,
                evidence: first.evidence.map(({ text }) => text),
                places: finding.places.length,
              },
            ]
          : []
      }),
    }
  },
}
