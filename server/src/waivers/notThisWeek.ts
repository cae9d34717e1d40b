import { byCourse } from '../courses/byCourse.ts'
import { anyOf, change, rowsOf, type Database, institutionNow } from '@wickerframe/storage'

const notThisWeekRows = (
  database: Database,
  courseIds: readonly number[],
): Promise<{ course_id: number; instance: string }[]> => {
  const ids = anyOf(courseIds)
  return rowsOf(
    database,
    `SELECT course_id, instance
     FROM not_this_week
     WHERE course_id IN ${ids.sql}
     ORDER BY instance`,
    ids.values,
  )
}
export const listNotThisWeek = async (database: Database, courseId: number): Promise<string[]> =>
  (await notThisWeekRows(database, [courseId])).map((row) => row.instance)
/** Part instances left out on purpose in each of these courses. */
export const notThisWeekOf = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, string[]>> =>
  new Map(
    [...byCourse(await notThisWeekRows(database, courseIds))].map(([courseId, rows]) => [
      courseId,
      rows.map((row) => row.instance),
    ]),
  )
export const leaveOutThisWeek = async (
  database: Database,
  courseId: number,
  instance: string,
  by: string,
): Promise<void> => {
  await change(
    database,
    `INSERT IGNORE INTO not_this_week (course_id, instance, said_by, said_at)
     VALUES (?, ?, ?, ${institutionNow})`,
    [courseId, instance, by],
  )
}
export const takeInThisWeek = async (
  database: Database,
  courseId: number,
  instance: string,
): Promise<void> => {
  await change(
    database,
    `DELETE FROM not_this_week
     WHERE course_id = ? AND instance = ?`,
    [courseId, instance],
  )
}
