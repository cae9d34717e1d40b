import { change, type Database } from '@wickerframe/storage'

/** From now on results that were told before answer another question: what is waived, attested, joined or left out has changed. */
export const markHeldAnew = async (database: Database, courseId: number): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET held_anew_at = NOW(3)
     WHERE id = ?`,
    [courseId],
  )
}
