import { change, type Database, institutionNow } from '@wickerframe/storage'

/** From now on results that were told before answer another question: what is waived, attested, joined or left out has changed. */
export const markHeldAnew = async (database: Database, courseId: number): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET held_to_since = ${institutionNow}
     WHERE id = ?`,
    [courseId],
  )
}
