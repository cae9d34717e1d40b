import { change, firstRow, institutionNow, rowsOf, type Database } from '@wickerframe/storage'
import { sendRunMessages } from '../messages/messages.ts'
import { openStates, statesInSql } from '../queue/transitions.ts'

/**
 * Ends a run of which every task has ended, or has its plans made. Called after a task's transaction has committed: inside it,
 * two tasks that end together would each see the other still open.
 */
export const closeFinishedRun = async (database: Database, id: number): Promise<void> => {
  if (await hasOpenTasks(database, id)) return
  await markPlanned(database, id)
  await markDone(database, id)
  await sendRunMessages(database)
}

const hasOpenTasks = async (database: Database, id: number): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT 1 AS yes
     FROM tasks
     WHERE run_id = ? AND state IN (${statesInSql(openStates)})
     LIMIT 1`,
    [id],
  )) !== null
const markPlanned = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'planned'
     WHERE id = ?
       AND state = 'planning'
       AND NOT EXISTS (
         SELECT 1
         FROM tasks
         WHERE tasks.run_id = runs.id AND tasks.state IN (${statesInSql(openStates)})
       )`,
    [id],
  )
const markDone = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'done', finished_at = ${institutionNow}
     WHERE id = ?
       AND state = 'running'
       AND NOT EXISTS (
         SELECT 1
         FROM tasks
         WHERE tasks.run_id = runs.id AND tasks.state IN (${statesInSql(openStates)})
       )`,
    [id],
  )

/** Ends whatever runs are finished, also those whose worker was killed before it could. */
export const closeFinishedRuns = async (database: Database): Promise<void> => {
  for (const { id } of await rowsOf<{ id: number }>(
    database,
    `SELECT id
     FROM runs
     WHERE state IN ('running', 'planning')`,
  ))
    await closeFinishedRun(database, id)
}
