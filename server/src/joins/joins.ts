import type { Join } from '@wickerframe/core'
import { anyOf, change, rowsOf, type Database, institutionNow } from '@wickerframe/storage'
import { byCourse } from '../courses/byCourse.ts'
import { instantOfRow } from '../moment.ts'

const joinRows = (
  database: Database,
  courseIds: readonly number[],
): Promise<(Join & { course_id: number; by: string; at: string })[]> => {
  const ids = anyOf(courseIds)
  return rowsOf(
    database,
    `SELECT course_id, what, expected, found, said_by AS \`by\`, said_at AS \`at\`
     FROM joins_by_hand
     WHERE course_id IN ${ids.sql}
     ORDER BY said_at, expected`,
    ids.values,
  )
}
export const listJoins = async (
  database: Database,
  courseId: number,
): Promise<(Join & { by: string; at: string })[]> =>
  (await joinRows(database, [courseId])).map(({ what, expected, found, by, at }) => ({
    what,
    expected,
    found,
    by,
    at: instantOfRow(at),
  }))
/** What was joined and unjoined by hand in each of these courses, as the check takes it. */
export const joinsOf = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Join[]>> =>
  byCourse(
    (await joinRows(database, courseIds)).map(({ course_id, what, expected, found }) => ({
      course_id,
      what,
      expected,
      found,
    })),
  )

/** Keeps what somebody said of a pair. A join takes the place of any other join of either end. */
export const putJoin = async (
  database: Database,
  courseId: number,
  { what, expected, found }: Join,
  by: string,
): Promise<void> => {
  if (what === 'join') await forgetJoinsOfEnds(database, courseId, expected, found)
  await change(
    database,
    `INSERT INTO joins_by_hand (course_id, what, expected, found, said_by, said_at)
     VALUES (?, ?, ?, ?, ?, ${institutionNow})
     ON DUPLICATE KEY UPDATE what = VALUES(what), said_by = VALUES(said_by),
       said_at = VALUES(said_at)`,
    [courseId, what, expected, found, by],
  )
}
const forgetJoinsOfEnds = (database: Database, courseId: number, expected: string, found: string) =>
  change(
    database,
    `DELETE FROM joins_by_hand
     WHERE course_id = ? AND what = 'join' AND (expected = ? OR found = ?)`,
    [courseId, expected, found],
  )
export const forgetJoin = async (
  database: Database,
  courseId: number,
  expected: string,
  found: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `DELETE FROM joins_by_hand
       WHERE course_id = ? AND expected = ? AND found = ?`,
      [courseId, expected, found],
    )
  ).affected === 1
