import { gistForm, gistOf } from './checkDigests.ts'
import { currentCheckOf } from './currentCheck.ts'
import { outlookOf, type CheckResult, type Crossings, type Finding } from '@wickerframe/core'
import {
  anyOf,
  change,
  firstRow,
  rowsOf,
  type Database,
  institutionNow,
} from '@wickerframe/storage'
import { instantOfRow } from '../moment.ts'

/** A result to be kept, with the question it answers. */
export interface CheckToStore {
  courseId: number
  cacheKey: string
  result: CheckResult
  crossings: Crossings
}

/**
 * Keeps results, with the intervals of as-of dates in which they hold.
 * @returns the id of the result by the course
 */
export const storeChecks = async (
  database: Database,
  checks: readonly CheckToStore[],
): Promise<Map<number, number>> => {
  if (checks.length === 0) return new Map()
  await insertResults(database, checks)
  const keyOf = new Map(checks.map(({ courseId, cacheKey }) => [courseId, cacheKey]))
  return new Map(
    (await resultsOf(database, checks)).flatMap(({ id, course_id, cache_key }) =>
      keyOf.get(course_id) === cache_key ? [[course_id, id] as const] : [],
    ),
  )
}

const insertResults = (database: Database, checks: readonly CheckToStore[]) =>
  change(
    database,
    `INSERT INTO check_results (
       course_id, cache_key, as_of, holds_from, holds_until, checked_at, told_at, readiness,
         open_musts, open_shoulds, counts, crossings, findings, gist, gist_form, outlook, rest
     )
     VALUES ${checks.map(() => `(?, ?, ?, ?, ?, ${institutionNow}, NOW(3), ?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`).join(', ')}
     ON DUPLICATE KEY UPDATE checked_at = VALUES(checked_at), told_at = VALUES(told_at),
       gist = IF(gist_form <=> VALUES(gist_form), gist, VALUES(gist)), gist_form = VALUES(gist_form)`,
    checks.flatMap(({ courseId, cacheKey, result, crossings }) => {
      const { findings, counts, readiness, holds, asOf, ...whole } = result
      // What is met or does not apply needs no words; the counts tell how much of it there is.
      const rest = {
        ...whole,
        outcomes: whole.outcomes.filter(
          (outcome) => outcome.outcome !== 'passed' && outcome.outcome !== 'inapplicable',
        ),
      }
      return [
        courseId,
        cacheKey,
        asOf,
        holds.from,
        holds.until,
        readiness,
        counts.openMusts,
        counts.openShoulds,
        JSON.stringify(counts),
        JSON.stringify(crossings),
        JSON.stringify(findings),
        JSON.stringify(gistOf(findings)),
        gistForm,
        JSON.stringify(outlookOf(result)),
        JSON.stringify(rest),
      ]
    }),
  )

/** The rows of results of these courses that answer one of these questions. */
const resultsOf = (database: Database, checks: readonly CheckToStore[]) => {
  const ids = anyOf(checks.map(({ courseId }) => courseId))
  const keys = anyOf(checks.map(({ cacheKey }) => cacheKey))
  const days = anyOf([...new Set(checks.map(({ result }) => result.asOf))])
  return rowsOf<{ id: number; course_id: number; cache_key: string }>(
    database,
    `SELECT id, course_id, cache_key
     FROM check_results
     WHERE course_id IN ${ids.sql} AND cache_key IN ${keys.sql} AND as_of IN ${days.sql}`,
    [...ids.values, ...keys.values, ...days.values],
  )
}

interface ResultRow {
  course_id: number
  as_of: string
  holds_from: string | null
  holds_until: string | null
  readiness: CheckResult['readiness']
  counts: string
  findings: string
  rest: string
}
const resultOf = (row: ResultRow): CheckResult =>
  ({
    ...JSON.parse(row.rest),
    asOf: row.as_of,
    holds: { from: row.holds_from, until: row.holds_until },
    readiness: row.readiness,
    counts: JSON.parse(row.counts),
    findings: JSON.parse(row.findings),
  }) as CheckResult

/** The latest result of a course that holds on a date. */
export const findCheck = async (
  database: Database,
  courseId: number,
  asOf: string,
): Promise<CheckResult | null> => {
  const row = await firstRow<ResultRow>(
    database,
    `SELECT course_id, as_of, holds_from, holds_until, readiness, counts, findings, rest
     FROM check_results
     WHERE id = ${currentCheckOf('?')}`,
    [courseId, asOf, asOf],
  )
  return row && { ...resultOf(row), asOf }
}

const coursesAtOnce = 20

/**
 * What the latest results of these courses tell that hold on a date: findings and what could not be told. What passed, what is
 * not due yet and the pairs are left out. They come some at a time, so that others are served between them.
 */
export async function* toldOfCourses(
  database: Database,
  courseIds: readonly number[],
  asOf: string,
): AsyncGenerator<Map<number, CheckResult>> {
  for (let from = 0; from < courseIds.length; from += coursesAtOnce) {
    const ids = anyOf(courseIds.slice(from, from + coursesAtOnce))
    const rows = await resultRows(database, ids, asOf)
    yield new Map(
      rows.map((row) => {
        const result = { ...resultOf(row), asOf }
        const outcomes = result.outcomes.filter(
          ({ outcome }) => outcome === 'failed' || outcome === 'cannot-tell',
        )
        return [row.course_id, { ...result, pairs: [], outcomes }]
      }),
    )
  }
}

/** No more than the findings of what `toldOfCourses` tells, in the order asked. Courses that were not checked are left out. */
export async function* findingsOfCourses(
  database: Database,
  courseIds: readonly number[],
  asOf: string,
): AsyncGenerator<Map<number, Finding[]>> {
  for (let from = 0; from < courseIds.length; from += coursesAtOnce) {
    const asked = courseIds.slice(from, from + coursesAtOnce)
    const rows = await findingRows(database, anyOf(asked), asOf)
    const findings = new Map(rows.map((row) => [row.course_id, row.findings]))
    yield new Map(
      asked.flatMap((id) => {
        const found = findings.get(id)
        return found === undefined ? [] : [[id, JSON.parse(found)] as const]
      }),
    )
  }
}

const findingRows = (
  database: Database,
  ids: ReturnType<typeof anyOf>,
  asOf: string,
): Promise<Pick<ResultRow, 'course_id' | 'findings'>[]> =>
  rowsOf(
    database,
    `SELECT check_results.course_id, findings
     FROM courses
     JOIN check_results ON check_results.id = ${currentCheckOf('courses.id')}
     WHERE courses.id IN ${ids.sql}`,
    [asOf, asOf, ...ids.values],
  )

const resultRows = (
  database: Database,
  ids: ReturnType<typeof anyOf>,
  asOf: string,
): Promise<ResultRow[]> =>
  rowsOf(
    database,
    `SELECT check_results.course_id, check_results.as_of, holds_from, holds_until, readiness,
       counts, findings, rest
     FROM courses
     JOIN check_results ON check_results.id = ${currentCheckOf('courses.id')}
     WHERE courses.id IN ${ids.sql}`,
    [asOf, asOf, ...ids.values],
  )

/** Another text whenever a course was told anew, or is held to something else. */
export const checksPulse = async (database: Database): Promise<string> => {
  const row = await firstRow<{ told: string | null; held: string | null }>(
    database,
    `SELECT (SELECT MAX(told_at) FROM check_results) AS told,
       (SELECT MAX(held_anew_at) FROM courses) AS held`,
  )
  return `${row?.told ?? ''}/${row?.held ?? ''}`
}

/** For each of these courses, which found id stands for which part instance, by its latest check that holds on a date. */
export const listPairs = async (
  database: Database,
  courseIds: readonly number[],
  asOf: string,
): Promise<Map<number, Map<string, string>>> => {
  if (courseIds.length === 0) return new Map()
  const rows = await rowsOf<{ course_id: number; pairs: string | null }>(
    database,
    `SELECT check_results.course_id, CONVERT(JSON_EXTRACT(rest, '$.pairs') USING utf8mb4) AS pairs
     FROM courses
     JOIN check_results ON check_results.id = ${currentCheckOf('courses.id')}
     WHERE courses.id IN (${courseIds.map(() => '?').join(', ')})`,
    [asOf, asOf, ...courseIds],
  )
  return new Map(
    rows.map((row) => [
      row.course_id,
      new Map(
        (JSON.parse(row.pairs ?? '[]') as CheckResult['pairs']).map((pair) => [
          pair.expected,
          pair.found,
        ]),
      ),
    ]),
  )
}

/** Fingerprints of the places that the check before the latest told of, both as of days that have come; null when there was none. */
export const findingsBefore = async (
  database: Database,
  courseId: number,
  today: string,
): Promise<{ checkedAt: string; places: Map<string, string> } | null> => {
  const row = await firstRow<{ checked_at: string; findings: string }>(
    database,
    `SELECT checked_at, findings
     FROM check_results
     WHERE course_id = ? AND as_of <= ?
     ORDER BY as_of DESC, told_at DESC, id DESC
     LIMIT 1 OFFSET 1`,
    [courseId, today],
  )
  return (
    row && {
      checkedAt: instantOfRow(row.checked_at),
      places: new Map(
        (JSON.parse(row.findings) as Finding[]).flatMap((finding) =>
          finding.places.map((place) => [place.fingerprint, place.message]),
        ),
      ),
    }
  )
}

/** Takes away results older than so many days, some at a time; the latest of a course stays: it is what people are shown. */
export const forgetResults = (database: Database, days: number) =>
  change(
    database,
    `DELETE FROM check_results
     WHERE checked_at < TIMESTAMPADD(DAY, -?, ${institutionNow})
       AND id NOT IN (
         SELECT latest
         FROM (SELECT MAX(id) AS latest FROM check_results GROUP BY course_id) AS kept
       )
     ORDER BY id
     LIMIT 1000`,
    [days],
  )
