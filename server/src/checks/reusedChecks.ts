import { anyOf, change, institutionNow, rowsOf, type Database } from '@wickerframe/storage'
import { wordingStamp } from '../library/library.ts'
import { holdsOn } from './currentCheck.ts'

/** What a check of each of these courses is made from, as stamps that change when it does. */
export const checkStamps = async (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  const rows = await rowsOf<{
    id: number
    digest: string | null
    revision: number | null
    since: string | null
    wording: string | null
  }>(
    database,
    `SELECT courses.id, snapshots.digest, courses.base_revision AS revision,
       courses.held_anew_at AS since, ${wordingStamp} AS wording
     FROM courses
     LEFT JOIN snapshots ON snapshots.course_id = courses.id
     WHERE courses.id IN ${ids.sql}`,
    ids.values,
  )
  return new Map(rows.map(({ id, ...state }) => [id, state]))
}

/**
 * Which of these very questions were answered before, for an as-of date in the answer's interval. Such an answer becomes the latest.
 * @param keys the question by the course it is about
 * @returns the id of the answer by the course
 */
export const reuseChecks = async (
  database: Database,
  keys: ReadonlyMap<number, string>,
  asOf: string,
): Promise<Map<number, number>> => {
  const rows = await findAnswered(database, keys, asOf)
  const latest = new Map(
    rows.flatMap((row) =>
      keys.get(row.course_id) === row.cache_key ? [[row.course_id, row.id] as const] : [],
    ),
  )
  if (latest.size > 0) await makeLatest(database, [...latest.values()])
  return latest
}

const findAnswered = (database: Database, keys: ReadonlyMap<number, string>, asOf: string) => {
  const ids = anyOf([...keys.keys()])
  const asked = anyOf([...keys.values()])
  return rowsOf<{ id: number; course_id: number; cache_key: string }>(
    database,
    `SELECT id, course_id, cache_key
     FROM check_results
     WHERE course_id IN ${ids.sql} AND cache_key IN ${asked.sql} AND ${holdsOn}
     ORDER BY id`,
    [...ids.values, ...asked.values, asOf, asOf],
  )
}
const makeLatest = (database: Database, results: readonly number[]) => {
  const found = anyOf(results)
  return change(
    database,
    `UPDATE check_results
     SET checked_at = ${institutionNow}, told_at = NOW(3)
     WHERE id IN ${found.sql}`,
    found.values,
  )
}
