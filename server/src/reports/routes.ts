import type { Response } from 'express'
import { type CourseSummary, type ReportFormatName, type reportRoutes } from '@wickerframe/contract'
import { reportFormats, type Report, type ReportedCourse } from '@wickerframe/interchange/report'
import { findCheck, listTold } from '../checks/checks.ts'
import { bandOfCourse, ownerName } from '../conformance/bandOfCourse.ts'
import { listCourses } from '../courses/courses.ts'
import { courseIn } from '../courses/routes.ts'
import { hasAnswered, type HandlersOf, type Situation } from '../http/handler.ts'
import { HttpProblem } from '../http/problem.ts'
import { versionOf } from '../version.ts'

const reportOf = (
  { now }: Situation,
  title: string,
  courses: readonly ReportedCourse[],
): Report => ({ title, made: now, version: versionOf(), courses, failed: [], since: null })

const reportedOf = (
  { publicUrl }: Situation,
  summary: CourseSummary,
  result: ReportedCourse['result'],
): ReportedCourse => ({
  result,
  at: `${publicUrl}/courses/${summary.id}`,
  classSections: summary.classSections,
  department: summary.department,
  owner: ownerName(summary),
})

/** Sends a report: as a page to look at and print, otherwise as a file to keep. Nothing in it runs. */
const send = (
  response: Response,
  format: ReportFormatName,
  name: string,
  written: string | Uint8Array,
): typeof hasAnswered => {
  const { mediaType, extension } = reportFormats[format]
  response.set(
    'Content-Security-Policy',
    "sandbox allow-modals; default-src 'none'; style-src 'unsafe-inline'",
  )
  // The name first: it would say what the file is, less precisely.
  if (format !== 'html') response.attachment(`${name}.${extension}`)
  response.set('Content-Type', mediaType)
  response.send(typeof written === 'string' ? written : Buffer.from(written))
  return hasAnswered
}

export const reportHandlers: HandlersOf<typeof reportRoutes> = {
  courseReport: async (handling) => {
    const { pool, response, today, query } = handling
    const { summary } = await courseIn(handling)
    const result = await findCheck(pool, summary.id, query.asOf ?? today)
    if (!result)
      throw new HttpProblem(404, 'not-checked', 'the course has not been checked as of this date')
    const name = `check-${summary.platformId}-${result.asOf}`
    const title = `${summary.code} ${summary.title}`
    const report = reportOf(handling, title, [reportedOf(handling, summary, result)])
    return send(
      response,
      query.format,
      name,
      // Of one course, its check as it is: what the command line prints.
      query.format === 'json'
        ? JSON.stringify(result, null, 2)
        : await reportFormats[query.format].write(report),
    )
  },
  collegeReport: async (handling) => {
    const { pool, person, response, today, query } = handling
    const asOf = query.asOf ?? today
    const bands = query.of === undefined ? null : new Set(query.of.split('~'))
    const courses = (await listCourses(pool, person, asOf)).filter(({ summary }) => {
      if (summary.status !== 'teaching' || summary.check === null) return false
      const { openMusts, openShoulds } = summary.check.counts
      return (
        (query.shown === 'all' || openMusts + openShoulds > 0) &&
        (bands?.has(bandOfCourse(summary, query.by)) ?? true)
      )
    })
    if (courses.length === 0)
      throw new HttpProblem(404, 'not-checked', 'no such course has been checked as of this date')
    const results = await listTold(
      pool,
      courses.map(({ summary }) => summary.id),
      asOf,
    )
    const title = bands ? [...bands].join(', ') : 'All courses'
    const report = reportOf(
      handling,
      `${title}, as of ${asOf}`,
      courses.flatMap(({ summary }) => {
        const result = results.get(summary.id)
        return result ? [reportedOf(handling, summary, result)] : []
      }),
    )
    return send(
      response,
      query.format,
      `report-${asOf}`,
      await reportFormats[query.format].write(report),
    )
  },
}
