import type { RosterReport, rosterRoutes } from '@wickerframe/contract'
import type { HandlersOf } from '../http/handler.ts'
import type { Term } from '@wickerframe/core'
import { mustLookAfter } from '../courses/departments.ts'
import { takenForWords, type RosterCourse } from '@wickerframe/interchange'
import { everyCourse } from '../connector/everyCourse.ts'
import { importRoster, rosterPreview } from './roster.ts'
import { listTerms } from '../terms/terms.ts'
import { answered } from '../http/answered.ts'
import { fileOf } from '../http/fileOf.ts'
import { withProgress } from '../http/progress.ts'
import { mustBeAsShown } from '../http/shown.ts'

/** Mistakes that only this college's terms show. */
const wrongTerms = (
  courses: readonly RosterCourse[],
  terms: readonly Term[],
): RosterReport['errors'] =>
  courses.flatMap((course) => {
    const term = terms.find((term) => term.code === course.term)
    if (!term)
      return [
        {
          line: course.line,
          column: 'term',
          found: course.term,
          reason: `the code of a term: ${terms.map((term) => term.code).join(', ')}`,
        },
      ]
    if (
      course.session !== null &&
      !term.sessions.some((session) => session.code === course.session)
    )
      return [
        {
          line: course.line,
          column: 'session',
          found: course.session,
          reason: `the code of a session of ${term.code}: ${term.sessions.map((session) => session.code).join(', ') || 'it has none'}`,
        },
      ]
    return []
  })

export const rosterHandlers: HandlersOf<typeof rosterRoutes> = {
  /** Brings a roster file in; courses that the platform does not have are left out, and told row by row. */
  importRoster: (handling) =>
    withProgress(handling, async (tell) => {
      const { pool, person, connector, query } = handling
      const dry = query.dry
      tell({ doing: 'reading the file', done: 0, of: 0 })
      const read = await fileOf(
        handling,
        'roster',
        { making: null },
        'the roster file as the body, as text/csv',
      )
      const about = { dry, rows: read.rows, note: takenForWords(read.takenFor) }
      const errors = [...read.errors, ...wrongTerms(read.courses, await listTerms(pool))]
      if (errors.length > 0)
        return {
          ...about,
          errors: errors.slice(0, 200),
          added: 0,
          changed: 0,
          unchanged: 0,
          changes: [],
          kept: [],
          absent: [],
          digest: '',
        }
      mustLookAfter(
        person,
        read.courses.map(({ department }) => department),
      )
      tell({ doing: 'asking the platform for its courses', done: 0, of: 0 })
      const there = answered(await everyCourse(connector), 'tell its courses')
      const absent = read.courses
        .filter((course) => !there.has(course.platformId))
        .map(({ line, code, title, platformId }) => ({
          line,
          course: `${code} ${title}`,
          platformId,
        }))
      const courses = read.courses.filter((course) => there.has(course.platformId))
      const compared = (done: number) =>
        tell({ doing: dry ? 'comparing' : 'bringing in', done, of: courses.length })
      const report = dry
        ? await rosterPreview(pool, courses, compared)
        : await importRoster(
            pool,
            courses,
            () => ({}),
            person.email,
            (digest) => mustBeAsShown(query.shown ?? null, digest),
            compared,
          )
      return { ...about, errors: [], absent, ...report, changes: report.changes.slice(0, 2000) }
    }),
}
