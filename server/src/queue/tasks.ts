import type { Pool } from 'mysql2/promise'
import type { Decision } from '@wickerframe/core'
import type { PlanSummary, RunSummary, TaskState } from '@wickerframe/contract'
import {
  change,
  firstRow,
  inTransaction,
  rowsOf,
  type Database,
  institutionNow,
} from '@wickerframe/storage'
import { packText, unpackText } from '../packed.ts'
import { fromStates } from './transitions.ts'

/** A task as a worker holds it. Every later write names the epoch, so that a worker that lost its lease writes nothing. */
export interface ClaimedTask {
  id: number
  runId: number
  courseId: number
  epoch: number
  attempts: number
  kind: RunSummary['kind']
  by: string
  asOf: string | null
  templateId: number | null
  version: number | null
  planDigest: string | null
  /** Whether it is to be planned, not run. */
  toPlan: boolean
  /** What its run was asked to do, as it is kept: JSON for a rollout, null for other kinds. */
  order: string | null
  decisions: Record<string, Decision>
  sourceCourseId: number | null
  /** What was approved for this course, for kinds of runs whose plan is kept: JSON. */
  proposal: string | null
  /** The change set whose fate is not known yet, with the key it was or will be sent under. */
  sent: { key: string; payloadDigest: string; payload: string } | null
  /** What was made ready when the course was planned, and a digest of all it was planned from. */
  prepared: { inputs: string; payload: string } | null
}

interface ClaimRow {
  id: number
  run_id: number
  course_id: number
  lease_epoch: number
  attempts: number
  plan_digest: string | null
  proposal: string | null
  decisions: string | null
  source_course_id: number | null
  idempotency_key: string | null
  payload_digest: string | null
  payload: Buffer | null
  prepared_for: string | null
  state: TaskState
}
interface RunOfTask {
  kind: RunSummary['kind']
  created_by: string
  as_of: string | null
  template_id: number | null
  version: number | null
  rollout_order: string | null
}

/** Kinds of tasks that may be due, each found along one index: what was sent and is nobody's, what is to be run, what is to be planned. */
const sent = {
  state: 'sent',
  run: '',
  of: 'AND (tasks.lease_until IS NULL OR tasks.lease_until < NOW(3))',
} as const
const toRun = { state: 'waiting', run: "AND runs.state = 'running'", of: '' } as const
const toPlan = { state: 'to-plan', run: "AND runs.state = 'planning'", of: '' } as const
type Due = typeof sent | typeof toRun | typeof toPlan
const mostCandidates = 24

interface Candidate {
  id: number
  turn: string
  due: Due
}
/** Of the same turn it is the one that was found first. */
const byTurn = (a: Candidate, b: Candidate): number =>
  Number(a.turn > b.turn) - Number(a.turn < b.turn)
const candidatesOf = async (pool: Pool, due: Due): Promise<Candidate[]> =>
  (
    await rowsOf<{ id: number; turn: string }>(
      pool,
      // Along the index, and no further than to the last of them.
      `SELECT tasks.id, tasks.turn
       FROM tasks
       STRAIGHT_JOIN runs ON runs.id = tasks.run_id
       WHERE tasks.state = ? AND tasks.next_at <= NOW(3) ${due.run} ${due.of}
       ORDER BY tasks.turn
       LIMIT ?`,
      [due.state, String(mostCandidates)],
    )
  ).map((row) => ({ ...row, due }))

/**
 * Claims the next task that is due, for so many seconds; null when there is none. What was sent is followed first; of the rest
 * it is the turn of the first courses of each run before the last of a long one, whether they are planned or run. Candidates are
 * read without a lock, then one of them is locked by its key, so that many workers never wait for each other nor lock what they
 * do not take.
 * @param worker name of the process that works on it, for those who look after many
 */
export const claimTask = async (
  pool: Pool,
  leaseSeconds: number,
  worker: string,
): Promise<ClaimedTask | null> => {
  const followed = await candidatesOf(pool, sent)
  const others = [...(await candidatesOf(pool, toRun)), ...(await candidatesOf(pool, toPlan))]
  const candidates = [...followed, ...others.sort(byTurn)]
  return candidates.length === 0 ? null : claimOneOf(pool, leaseSeconds, worker, candidates)
}

const claimOneOf = (
  pool: Pool,
  leaseSeconds: number,
  worker: string,
  candidates: readonly Candidate[],
): Promise<ClaimedTask | null> =>
  inTransaction(pool, async (database) => {
    const row = await lockFirstDue(database, candidates)
    // The run is read without a lock: it is shared by all who claim. One that was paused in this moment runs one task more.
    const run = row && (await runOfTask(database, row.run_id))
    if (!row || !run) return null
    await takeLease(database, row, leaseSeconds, worker)
    return {
      id: row.id,
      runId: row.run_id,
      courseId: row.course_id,
      epoch: row.lease_epoch + 1,
      attempts: row.attempts + 1,
      kind: run.kind,
      by: run.created_by,
      asOf: run.as_of,
      templateId: run.template_id,
      version: run.version,
      planDigest: row.plan_digest,
      proposal: row.proposal,
      toPlan: row.state === 'to-plan',
      order: run.rollout_order,
      decisions:
        row.decisions === null ? {} : (JSON.parse(row.decisions) as Record<string, Decision>),
      sourceCourseId: row.source_course_id,
      sent:
        row.idempotency_key !== null && row.payload !== null && row.payload_digest !== null
          ? {
              key: row.idempotency_key,
              payloadDigest: row.payload_digest,
              payload: unpackText(row.payload),
            }
          : null,
      prepared:
        row.idempotency_key === null &&
        row.payload !== null &&
        row.prepared_for !== null &&
        row.state === 'waiting'
          ? { inputs: row.prepared_for, payload: unpackText(row.payload) }
          : null,
    }
  })

/** The first that is due still and that nobody else is claiming. */
const lockFirstDue = async (
  database: Database,
  candidates: readonly Candidate[],
): Promise<ClaimRow | null> => {
  for (const candidate of candidates) {
    const row = await lockDueTask(database, candidate)
    if (row) return row
  }
  return null
}
const lockDueTask = (database: Database, { id, due }: Candidate) =>
  firstRow<ClaimRow>(
    database,
    `SELECT tasks.id, tasks.run_id, tasks.course_id, tasks.lease_epoch, tasks.attempts, tasks.state,
       tasks.plan_digest, tasks.proposal, tasks.decisions, tasks.source_course_id,
       tasks.idempotency_key, tasks.payload_digest, tasks.payload, tasks.prepared_for
     FROM tasks
     WHERE tasks.id = ? AND tasks.state = ? AND tasks.next_at <= NOW(3) ${due.of}
     FOR UPDATE SKIP LOCKED`,
    [id, due.state],
  )
const runOfTask = (database: Database, runId: number) =>
  firstRow<RunOfTask>(
    database,
    `SELECT kind, created_by, as_of, template_id, version, rollout_order
     FROM runs
     WHERE id = ?`,
    [runId],
  )
const takeLease = (database: Database, row: ClaimRow, leaseSeconds: number, worker: string) =>
  change(
    database,
    `UPDATE tasks
     SET state = ?, attempts = attempts + 1, lease_epoch = lease_epoch + 1,
       lease_until = TIMESTAMPADD(SECOND, ?, NOW(3)), worked_by = ?
     WHERE id = ?`,
    [row.state === 'sent' ? 'sent' : 'at-work', leaseSeconds, worker, row.id],
  )

/** What a task that was at work goes back to. */
const restingState =
  "IF(tasks.idempotency_key IS NOT NULL, 'sent', IF(runs.state = 'planning', 'to-plan', 'waiting'))"

/** Takes back tasks whose worker is gone. One that had sent something stays `sent`: its fate must be asked for. */
export const collectExpired = async (database: Database): Promise<number> =>
  (
    await change(
      database,
      `UPDATE tasks
       JOIN runs ON runs.id = tasks.run_id
       SET tasks.state = ${restingState}, tasks.lease_until = NULL
       WHERE tasks.state IN (${fromStates('collect')}) AND tasks.lease_until < NOW(3)`,
    )
  ).affected

export const renewLease = async (
  database: Database,
  task: ClaimedTask,
  leaseSeconds: number,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE tasks
       SET lease_until = TIMESTAMPADD(SECOND, ?, NOW(3))
       WHERE id = ? AND lease_epoch = ?`,
      [leaseSeconds, task.id, task.epoch],
    )
  ).affected === 1

/** Writes the key down under which what was made ready is sent, before it is. False when the lease was lost. */
export const markPreparedSent = async (
  database: Database,
  task: ClaimedTask,
  key: string,
  payloadDigest: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE tasks
       SET state = 'sent', idempotency_key = ?, payload_digest = ?
       WHERE id = ? AND lease_epoch = ? AND state IN (${fromStates('send')}) AND payload IS NOT NULL`,
      [key, payloadDigest, task.id, task.epoch],
    )
  ).affected === 1

/** Writes the key and the payload down, before anything is sent. False when the lease was lost. */
export const markSent = async (
  database: Database,
  task: ClaimedTask,
  sent: NonNullable<ClaimedTask['sent']>,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE tasks
       SET state = 'sent', idempotency_key = ?, payload_digest = ?, payload = ?
       WHERE id = ? AND lease_epoch = ? AND state IN (${fromStates('send')})`,
      [sent.key, sent.payloadDigest, packText(sent.payload), task.id, task.epoch],
    )
  ).affected === 1

/** Whether something was sent for a task of which it is not known what became of it. */
export const isSent = async (database: Database, task: ClaimedTask): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT id
     FROM tasks
     WHERE id = ? AND lease_epoch = ? AND state = 'sent'`,
    [task.id, task.epoch],
  )) !== null

/** Ends a task, in the transaction of what it did. False when the lease was lost, and then nothing of it may be kept. */
export const finishTask = async (
  database: Database,
  task: ClaimedTask,
  state: 'done' | 'failed' | 'held' | 'planned',
  message: string,
): Promise<boolean> => {
  const { affected } = await change(
    database,
    `UPDATE tasks
     SET state = ?, message = ?, finished_at = ${institutionNow}, lease_until = NULL,
       payload = IF(? = 'planned', payload, NULL),
       idempotency_key = IF(? = 'done', idempotency_key, NULL)
     WHERE id = ? AND lease_epoch = ? AND state IN (${fromStates('finish')})`,
    [state, message.slice(0, 2000), state, state, task.id, task.epoch],
  )
  return affected === 1
}

/**
 * Puts a task back for later: what was sent stays sent, so that the same key asks again.
 * @param isAttempt whether it counts as one of its attempts
 */
export const postponeTask = async (
  database: Database,
  task: ClaimedTask,
  seconds: number,
  message: string,
  isAttempt = true,
): Promise<void> => {
  await change(
    database,
    `UPDATE tasks
     JOIN runs ON runs.id = tasks.run_id
     SET tasks.state = ${restingState}, tasks.lease_until = NULL,
       tasks.next_at = TIMESTAMPADD(MICROSECOND, ?, NOW(3)), tasks.message = ?,
       tasks.attempts = tasks.attempts - ?
     WHERE tasks.id = ? AND tasks.lease_epoch = ? AND tasks.state IN (${fromStates('postpone')})`,
    [Math.round(seconds * 1e6), message.slice(0, 2000), isAttempt ? 0 : 1, task.id, task.epoch],
  )
}

/** Forgets a key that was refused or voided, so that the task plans anew. */
export const forgetKey = async (database: Database, task: ClaimedTask): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE tasks
       SET state = 'at-work', idempotency_key = NULL, payload = NULL, payload_digest = NULL
       WHERE id = ? AND lease_epoch = ? AND state IN (${fromStates('forget the key')})`,
      [task.id, task.epoch],
    )
  ).affected === 1

/**
 * Keeps what the plan of a task comes to.
 * @param prepared what would be sent, as text, and a digest of all it was planned from; null: it is worked out when it is run
 */
export const keepPlan = async (
  database: Database,
  task: ClaimedTask,
  summary: PlanSummary,
  prepared: { inputs: string; payload: string } | null,
): Promise<void> => {
  await change(
    database,
    `UPDATE tasks
     SET plan_summary = ?, plan_shape = ?, plan_digest = ?, payload = ?, prepared_for = ?
     WHERE id = ? AND lease_epoch = ?`,
    [
      JSON.stringify(summary),
      summary.shape,
      summary.digest,
      prepared === null ? null : packText(prepared.payload),
      prepared?.inputs ?? null,
      task.id,
      task.epoch,
    ],
  )
}
