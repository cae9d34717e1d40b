import { change, rowsOf, type Database } from '@wickerframe/storage'
import { openStates, statesInSql } from '../queue/transitions.ts'

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

/** The same for those courses of a run that were to be checked again, and are not: what was told of them is no answer any more. */
export const markLeftHeldAnew = async (database: Database, run: number): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     JOIN tasks ON tasks.course_id = courses.id
     SET courses.held_anew_at = NOW(3)
     WHERE tasks.run_id = ? AND tasks.state = 'cancelled'`,
    [run],
  )
}

/** Courses that are still to be checked again, for they are held to something else since: they are shown as they were. */
export const coursesToCheckAgain = async (database: Database): Promise<Set<number>> =>
  new Set(
    (
      await rowsOf<{ course_id: number }>(
        database,
        `SELECT DISTINCT tasks.course_id
         FROM tasks
         JOIN runs ON runs.id = tasks.run_id
         WHERE runs.kind = 'recheck'
           AND runs.state IN ('running', 'paused')
           AND tasks.state IN (${statesInSql(openStates)})`,
      )
    ).map((row) => row.course_id),
  )
