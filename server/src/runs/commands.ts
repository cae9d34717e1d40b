import { markLeftHeldAnew } from '../checks/heldAnew.ts'
import type { Pool } from 'mysql2/promise'
import {
  change,
  firstRow,
  inTransaction,
  institutionNow,
  type Database,
} from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import {
  cancelTasks,
  leaveOutRest,
  queueReady,
  requeueFailed,
  requeueHeld,
} from '../queue/commands.ts'

export const commands = ['approve', 'pause', 'resume', 'cancel', 'retry'] as const
export type Command = (typeof commands)[number]

/**
 * Approves, pauses, resumes, cancels or retries a run. What was sent already is always followed to its end.
 * @param courses which of its courses are approved; all whose plan is ready without it
 */
export const commandRun = (
  pool: Pool,
  id: number,
  command: Command,
  who: string,
  courses?: readonly number[],
): Promise<boolean> =>
  inTransaction(pool, (database) => commandRunIn(database, id, command, who, courses))

/** Gives a run a command with whatever else a transaction keeps. */
export const commandRunIn = async (
  database: Database,
  id: number,
  command: Command,
  who: string,
  courses?: readonly number[],
): Promise<boolean> => {
  const run = await lockRun(database, id)
  if (!run) return false
  if (command === 'approve') await approve(database, id, run, courses)
  if (command === 'pause') await pause(database, id)
  if (command === 'resume') await resume(database, id)
  if (command === 'cancel') {
    await cancelTasks(database, id)
    if (run.kind === 'recheck') await markLeftHeldAnew(database, id)
    await markCancelled(database, id)
  }
  if (command === 'retry') await retry(database, id, run)
  await recordAudit(database, { who, what: `run: ${command}`, subject: `run ${id}` })
  return true
}

const approve = async (
  database: Database,
  id: number,
  run: { state: string; kind: string },
  courses?: readonly number[],
): Promise<void> => {
  const held = await requeueHeld(database, id, courses)
  if (run.state === 'planned' && run.kind === 'rollout') {
    await queueReady(database, id, courses)
    await leaveOutRest(database, id)
  }
  await startApproved(database, id, held)
}

/** A run whose plans nobody has approved yet goes on planning; nothing of it is run. */
const retry = async (
  database: Database,
  id: number,
  run: { state: string; kind: string },
): Promise<void> => {
  const isApproved = run.state !== 'planned' && run.state !== 'planning'
  if ((await requeueFailed(database, id, isApproved)) > 0)
    await (isApproved ? runAgain(database, id) : planFurther(database, id))
}

const lockRun = (database: Database, id: number) =>
  firstRow<{ state: string; kind: string }>(
    database,
    `SELECT state, kind
     FROM runs
     WHERE id = ?
     FOR UPDATE`,
    [id],
  )
const startApproved = (database: Database, id: number, held: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'running'
     WHERE id = ? AND (state = 'planned' OR (state = 'done' AND ? > 0))`,
    [id, held],
  )
const pause = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'paused'
     WHERE id = ? AND state = 'running'`,
    [id],
  )
const resume = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'running'
     WHERE id = ? AND state = 'paused'`,
    [id],
  )
const markCancelled = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'cancelled', finished_at = ${institutionNow}
     WHERE id = ? AND state IN ('planning', 'planned', 'running', 'paused')`,
    [id],
  )
const runAgain = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'running', finished_at = NULL
     WHERE id = ?`,
    [id],
  )
const planFurther = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'planning'
     WHERE id = ? AND state IN ('planned', 'planning')`,
    [id],
  )
