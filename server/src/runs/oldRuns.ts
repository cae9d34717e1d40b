import type { Pool } from 'mysql2/promise'
import {
  anyOf,
  change,
  inTransaction,
  institutionNow,
  rowsOf,
  type Database,
} from '@wickerframe/storage'

/** Takes away runs that ended more than so many days ago, some at a time, but for those that a deployment, a message or a rehearsal names, and what they undid or were undone by. */
export const forgetRuns = (pool: Pool, days: number): Promise<void> =>
  inTransaction(pool, async (database) => {
    const ids = (await unnamedRuns(database, days)).map(({ id }) => id)
    if (ids.length === 0) return
    await removeTasks(database, ids)
    await removeRuns(database, ids)
  })
const unnamedRuns = (database: Database, days: number) =>
  rowsOf<{ id: number }>(
    database,
    `SELECT runs.id
     FROM runs
     WHERE runs.finished_at < TIMESTAMPADD(DAY, -?, ${institutionNow})
       AND runs.state IN ('done', 'cancelled')
       AND NOT EXISTS (SELECT 1 FROM deployments WHERE deployments.run_id = runs.id)
       AND NOT EXISTS (SELECT 1 FROM deployments WHERE deployments.undone_by = runs.id)
       AND NOT EXISTS (SELECT 1 FROM messages WHERE messages.run_id = runs.id)
       AND NOT EXISTS (SELECT 1 FROM rehearsals WHERE rehearsals.run_id = runs.id)
     ORDER BY runs.id
     LIMIT 100
     FOR UPDATE`,
    [days],
  )
const removeTasks = (database: Database, runs: readonly number[]) => {
  const list = anyOf(runs)
  return change(
    database,
    `DELETE FROM tasks
     WHERE run_id IN ${list.sql}`,
    list.values,
  )
}
const removeRuns = (database: Database, runs: readonly number[]) => {
  const list = anyOf(runs)
  return change(
    database,
    `DELETE FROM runs
     WHERE id IN ${list.sql}`,
    list.values,
  )
}
