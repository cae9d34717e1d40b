import type { conformanceRoutes, ConformanceRow } from '@wickerframe/contract'
import {
  addDays,
  daysAheadOf,
  findingsAtColumn,
  lettersAlong,
  ruleById,
  weaveGroups,
  type Counts,
} from '@wickerframe/core'
import { checksPulse, findCheck } from '../checks/checks.ts'
import { coursesToCheckAgain } from '../checks/heldAnew.ts'
import { courseIn } from '../courses/routes.ts'
import type { HandlersOf } from '../http/handler.ts'
import { notFound } from '../http/problem.ts'
import { expectationOf } from '../rollouts/deploymentPlan.ts'
import { ownerName } from './bandOfCourse.ts'
import { actionsOver, checkedCourses, namedCourse } from './checkedCourses.ts'

const fourWeeks = 28
const mostOfDay = 12

export const conformanceHandlers: HandlersOf<typeof conformanceRoutes> = {
  checksPulse: async ({ pool }) => ({ pulse: await checksPulse(pool) }),
  conformance: async (handling) => {
    const { asOf, courses, checks, templates } = await checkedCourses(handling)
    const again = await coursesToCheckAgain(handling.pool)
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
        owner: ownerName(summary),
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
      checkedAgain: rows.filter(({ id }) => again.has(id)).length,
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
  ahead: async (handling) => {
    const { today } = handling
    const { courses, checks } = await checkedCourses({ ...handling, query: {} })
    const byId = new Map(courses.map(({ summary }) => [summary.id, summary]))
    const outlooks = courses.flatMap(({ summary: { id } }) => {
      const check = checks.get(id)
      return check ? [{ course: id, outlook: check.outlook }] : []
    })
    return {
      unchecked: courses.length - outlooks.length,
      days: daysAheadOf(outlooks, addDays(today, 1), addDays(today, fourWeeks)).map(
        ({ on, musts, courses: ids, rules }) => ({
          on,
          musts,
          count: ids.length,
          courses: ids.slice(0, mostOfDay).flatMap((id) => {
            const summary = byId.get(id)
            return summary ? [namedCourse(summary)] : []
          }),
          rules: Object.entries(rules)
            .map(([id, times]) => ({ title: ruleById(id)?.title ?? id, musts: times }))
            .sort((a, b) => b.musts - a.musts || (a.title < b.title ? -1 : 1)),
        }),
      ),
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
                fingerprints: finding.places.flatMap(({ fingerprint, waived }) =>
                  waived ? [] : [fingerprint],
                ),
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
