import type { Decision } from '@wickerframe/core'
import { change, institutionNow, type Database } from '@wickerframe/storage'
import { fromStates } from './transitions.ts'

// What people do with the tasks of a run.

const idsIn = (courses: readonly number[] | undefined): { sql: string; values: number[] } =>
  courses
    ? { sql: ` AND course_id IN (${courses.map(() => '?').join(', ')})`, values: [...courses] }
    : { sql: '', values: [] }

/** Plans that came out differently and waited for a second look. @returns how many */
export const requeueHeld = async (
  database: Database,
  id: number,
  courses?: readonly number[],
): Promise<number> => {
  const chosen = idsIn(courses)
  const { affected } = await change(
    database,
    `UPDATE tasks
     SET state = 'waiting', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
     WHERE run_id = ? AND state IN (${fromStates('approve again')})${chosen.sql}`,
    [id, ...chosen.values],
  )
  return affected
}
/** Plans that are ready and were approved. */
export const queueReady = (database: Database, id: number, courses?: readonly number[]) => {
  const chosen = idsIn(courses)
  return change(
    database,
    `UPDATE tasks
     SET state = 'waiting', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
     WHERE run_id = ?
       AND state IN (${fromStates('approve')})
       AND JSON_VALUE(plan_summary, '$.state') = 'ready'${chosen.sql}`,
    [id, ...chosen.values],
  )
}
/** Of plans that are not run: where only something is to be decided, the course waits for that; the rest is left out. */
export const leaveOutRest = (database: Database, id: number) =>
  change(
    database,
    `UPDATE tasks
     SET state = IF(${onlyToDecide}, 'done', 'cancelled'), payload = NULL,
       finished_at = ${institutionNow},
       message = COALESCE(
         CASE
           WHEN ${onlyToDecide} THEN 'nothing to do but what is to be decided'
           WHEN JSON_VALUE(plan_summary, '$.state') = 'ready' THEN 'left out of the approval'
           ELSE JSON_VALUE(plan_summary, '$.reason') END, ''
       )
     WHERE run_id = ? AND state IN (${fromStates('leave out')})`,
    [id],
  )
const onlyToDecide = `JSON_VALUE(plan_summary, '$.state') = 'nothing-to-do'
         AND JSON_VALUE(plan_summary, '$.undecided') + 0 > 0`
/** Whatever has not been begun. */
export const cancelTasks = (database: Database, id: number) =>
  change(
    database,
    `UPDATE tasks
     SET state = 'cancelled', payload = NULL, finished_at = ${institutionNow},
       message = 'cancelled before it began'
     WHERE run_id = ? AND state IN (${fromStates('cancel')})`,
    [id],
  )
/**
 * Tries tasks that failed once more: those of a run that was not approved yet are planned, the others run.
 * @returns how many
 */
export const requeueFailed = async (
  database: Database,
  id: number,
  isApproved: boolean,
): Promise<number> =>
  (
    await change(
      database,
      `UPDATE tasks
       SET state = ?, attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
       WHERE run_id = ? AND state IN (${fromStates('retry')})`,
      [isApproved ? 'waiting' : 'to-plan', id],
    )
  ).affected

/** Keeps what was decided for one course and has it planned again. */
export const storeDecisions = (
  database: Database,
  id: number,
  course: number,
  decisions: Record<string, Decision>,
) =>
  change(
    database,
    `UPDATE tasks
     SET decisions = ?, state = 'to-plan', attempts = 0, next_at = NOW(3), finished_at = NULL,
       message = ''
     WHERE run_id = ? AND course_id = ? AND state IN (${fromStates('decide')})`,
    [JSON.stringify(decisions), id, course],
  )
/** Every plan of a run is made anew. */
export const planAllAgain = (database: Database, id: number) =>
  change(
    database,
    `UPDATE tasks
     SET state = 'to-plan', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
     WHERE run_id = ? AND state IN (${fromStates('plan again')})`,
    [id],
  )
