import type { Response } from 'express'
import { type CourseSummary, type ReportFormatName, type reportRoutes } from '@wickerframe/contract'
import { reportFormats, type ReportedCourse } from '@wickerframe/interchange/report'
import { findCheck, toldOfCourses } from '../checks/checks.ts'
import { bandOfCourse, ownerName } from '../conformance/bandOfCourse.ts'
import { listCourses } from '../courses/courses.ts'
import { courseIn } from '../courses/routes.ts'
import { hasAnswered, type HandlersOf, type Situation } from '../http/handler.ts'
import { HttpProblem } from '../http/problem.ts'
import { versionOf } from '../version.ts'
import { reportBytes, ReportGivenUp, reportsHere, type ReportHead } from './reportWriter.ts'

const headOf = ({ now }: Situation, title: string): ReportHead => ({
  title,
  made: now,
  version: versionOf(),
})

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

/** So few are written before a thread has begun. */
const fewCourses = 20

/** Sends a report: as a page to look at and print, otherwise as a file to keep. Nothing in it runs. */
const send = (
  response: Response,
  format: ReportFormatName,
  name: string,
  written: Uint8Array,
): typeof hasAnswered => {
  const { mediaType, extension } = reportFormats[format]
  response.set(
    'Content-Security-Policy',
    "sandbox allow-modals; default-src 'none'; style-src 'unsafe-inline'",
  )
  // The name first: it would say what the file is, less precisely.
  if (format !== 'html') response.attachment(`${name}.${extension}`)
  response.set('Content-Type', mediaType)
  response.send(Buffer.from(written.buffer, written.byteOffset, written.byteLength))
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
    const head = headOf(handling, `${summary.code} ${summary.title}`)
    const courses = [reportedOf(handling, summary, result)]
    // Of one course, its check as it is: what the command line prints.
    const written =
      query.format === 'json'
        ? new TextEncoder().encode(JSON.stringify(result, null, 2))
        : await reportBytes(query.format, { ...head, courses, failed: [], since: null })
    return send(response, query.format, name, written)
  },
  collegeReport: async (handling) => {
    const { pool, person, response, reports, today, query } = handling
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
    const summaries = new Map(courses.map(({ summary }) => [summary.id, summary]))
    const reported = async function* (): AsyncGenerator<ReportedCourse[]> {
      for await (const told of toldOfCourses(pool, [...summaries.keys()], asOf))
        yield [...summaries.values()].flatMap((summary) => {
          const result = told.get(summary.id)
          return result ? [reportedOf(handling, summary, result)] : []
        })
    }
    const head = headOf(handling, `${bands ? [...bands].join(', ') : 'All courses'}, as of ${asOf}`)
    try {
      const writer = courses.length <= fewCourses ? reportsHere : reports
      const written = await writer.write(query.format, head, reported())
      return send(response, query.format, `report-${asOf}`, written)
    } catch (cause) {
      if (cause instanceof ReportGivenUp) throw new HttpProblem(503, 'not-written', cause.message)
      throw cause
    }
  },
}
