import { anyOf, change, type Database } from '@wickerframe/storage'

/** From now on results that were told before answer another question: what is waived, attested, joined or left out has changed. */
export const markHeldAnew = (database: Database, courseId: number): Promise<void> =>
  markAllHeldAnew(database, [courseId])

export const markAllHeldAnew = async (
  database: Database,
  courseIds: readonly number[],
): Promise<void> => {
  if (courseIds.length === 0) return
  const ids = anyOf(courseIds)
  await change(
    database,
    `UPDATE courses
     SET held_anew_at = NOW(3)
     WHERE id IN ${ids.sql}`,
    ids.values,
  )
}
