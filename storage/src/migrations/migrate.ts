import type { Pool } from 'mysql2/promise'
import { databaseErrorCode } from '../transaction.ts'
import { migrationsIn } from './files.ts'
import { takeLease } from './lease.ts'
import { ensureRecords, recordedRuns, recordRun } from './records.ts'
import { schemaConflict, schemaProblem, schemaState } from './schemaState.ts'

const defaultLeaseSeconds = 120

/**
 * Runs the migrations that have not run yet, in order, each recorded with its checksum, under a lease, so that two processes
 * that start together run them once. One that was cut short, also between its last statement and its record, is run from its
 * beginning: each of its statements can be run again. Where none is to be run, nothing is written: a user without rights to
 * the schema can start.
 * @returns names of the files that were run
 * @throws Error in words when files and records do not go together, or the user may not change the schema
 */
export const migrate = async (
  pool: Pool,
  folder: string,
  leaseSeconds = defaultLeaseSeconds,
): Promise<string[]> => {
  const state = await schemaState(pool, folder)
  const conflict = schemaConflict(state)
  if (conflict !== null) throw new Error(conflict)
  if (state.pending.length === 0) return []
  try {
    return await runPending(pool, folder, leaseSeconds)
  } catch (cause) {
    if (
      ['ER_TABLEACCESS_DENIED_ERROR', 'ER_DBACCESS_DENIED_ERROR'].includes(
        databaseErrorCode(cause) ?? '',
      )
    )
      throw new Error(schemaProblem(state) ?? '', { cause })
    throw cause
  }
}

const runPending = async (pool: Pool, folder: string, leaseSeconds: number): Promise<string[]> => {
  await ensureRecords(pool)
  const lease = await takeLease(pool, leaseSeconds)
  try {
    const recorded = await recordedRuns(pool)
    const run: string[] = []
    for (const { name, statements, checksum } of migrationsIn(folder)) {
      if (recorded.has(name)) continue
      for (const statement of statements) {
        await lease.confirm()
        await pool.query(statement)
      }
      await lease.confirm()
      await recordRun(pool, name, checksum)
      run.push(name)
    }
    return run
  } finally {
    await lease.giveBack()
  }
}
