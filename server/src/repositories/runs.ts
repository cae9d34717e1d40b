import type { Pool } from 'mysql2/promise'
import { readDocument, type Decision } from '@wickerframe/core'
import {
  RolloutOrder,
  taskStates,
  type DecideRequest,
  type PlanSummary,
  type ProposedRename,
  type RolloutRequest,
  type RunDetail,
  type RunSummary,
  type RunTask,
  type ShapeGroup,
  type TaskState,
} from '@wickerframe/contract'
import { change, firstRow, inTransaction, rowsOf, type Database } from '@wickerframe/storage'
import { recordAudit } from './audit.ts'
import { instantOfRow } from './moment.ts'
import { packText, unpackText } from './packed.ts'
import type { z } from 'zod'
import { sendRunMessages } from './messages.ts'
import type { Person } from './people.ts'

export interface NewRun {
  kind: RunSummary['kind']
  title: string
  by: string
  asOf: string | null
  templateId: number | null
  version: number | null
  tasks: readonly { courseId: number; sourceCourseId?: number; proposal?: readonly object[] }[]
  /** A planned run waits for approval; one that is planning makes its plans first. */
  state?: 'running' | 'planned' | 'planning'
  rollout?: StoredOrder
}

/** What a rollout was asked to do, as it is kept with its run. */
export interface StoredOrder {
  order: RolloutOrder
  rule: RolloutRequest['rule']
  standing: boolean
}

const orderOf = (text: string | null): StoredOrder | null => {
  if (text === null) return null
  const stored = JSON.parse(text) as StoredOrder
  const read = readDocument(RolloutOrder, stored.order)
  if (!read.ok)
    throw new Error(`a rollout's order cannot be read: ${JSON.stringify(read.problems[0])}`)
  return { ...stored, order: read.value }
}

export const createRun = async (pool: Pool, run: NewRun): Promise<number> =>
  inTransaction(pool, async (database) => {
    const { id } = await change(
      database,
      `INSERT INTO runs (
         kind, state, title, created_by, created_at, as_of, template_id, version, rollout_order
       )
       VALUES (?, ?, ?, ?, NOW(3), ?, ?, ?, ?)`,
      [
        run.kind,
        run.state ?? 'running',
        run.title,
        run.by,
        run.asOf,
        run.templateId,
        run.version,
        run.rollout ? JSON.stringify(run.rollout) : null,
      ],
    )
    const state = run.state === 'planning' ? 'to-plan' : 'waiting'
    for (let i = 0; i < run.tasks.length; i += 200) {
      const part = run.tasks.slice(i, i + 200)
      await change(
        database,
        `INSERT INTO tasks (run_id, course_id, state, next_at, source_course_id, proposal)
         VALUES ${part.map(() => '(?, ?, ?, NOW(3), ?, ?)').join(', ')}`,
        part.flatMap((task) => [
          id,
          task.courseId,
          state,
          task.sourceCourseId ?? null,
          task.proposal ? JSON.stringify(task.proposal) : null,
        ]),
      )
    }
    await recordAudit(database, {
      who: run.by,
      what: `${run.kind} ${run.state === 'planned' || run.state === 'planning' ? 'planned' : 'begun'}`,
      subject: `run ${id}`,
      to: { title: run.title, courses: run.tasks.length },
    })
    return id
  })

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
  rollout: StoredOrder | null
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
const due = [
  { state: 'sent', run: '', of: 'AND (tasks.lease_until IS NULL OR tasks.lease_until < NOW(3))' },
  { state: 'waiting', run: "AND runs.state = 'running'", of: '' },
  { state: 'to-plan', run: "AND runs.state = 'planning'", of: '' },
] as const
const mostCandidates = 24

/**
 * Claims the next task that is due, for so many seconds; null when there is none. Candidates are read without a lock, then one
 * of them is locked by its key, so that many workers never wait for each other nor lock what they do not take.
 * @param worker name of the process that works on it, for those who look after many
 */
export const claimTask = async (
  pool: Pool,
  leaseSeconds: number,
  worker: string,
): Promise<ClaimedTask | null> => {
  for (const { state, run, of } of due) {
    const candidates = await rowsOf<{ id: number }>(
      pool,
      `SELECT tasks.id
       FROM tasks
       JOIN runs ON runs.id = tasks.run_id
       WHERE tasks.state = ? AND tasks.next_at <= NOW(3) ${run} ${of}
       ORDER BY tasks.next_at, tasks.id
       LIMIT ?`,
      [state, String(mostCandidates)],
    )
    if (candidates.length === 0) continue
    const claimed = await claimOneOf(
      pool,
      leaseSeconds,
      worker,
      state,
      of,
      candidates.map((row) => row.id),
    )
    if (claimed) return claimed
  }
  return null
}

const claimOneOf = (
  pool: Pool,
  leaseSeconds: number,
  worker: string,
  state: TaskState,
  of: string,
  ids: readonly number[],
): Promise<ClaimedTask | null> =>
  inTransaction(pool, async (database) => {
    const row = await firstRow<ClaimRow>(
      database,
      `SELECT tasks.id, tasks.run_id, tasks.course_id, tasks.lease_epoch, tasks.attempts,
         tasks.state, tasks.plan_digest, tasks.proposal, tasks.decisions, tasks.source_course_id,
         tasks.idempotency_key, tasks.payload_digest, tasks.payload, tasks.prepared_for
       FROM tasks
       WHERE tasks.id IN (${ids.map(() => '?').join(', ')})
         AND tasks.state = ?
         AND tasks.next_at <= NOW(3) ${of}
       ORDER BY tasks.id
       LIMIT 1
       FOR UPDATE SKIP LOCKED`,
      [...ids, state],
    )
    // The run is read without a lock: it is shared by all who claim. One that was paused in this moment runs one task more.
    const run =
      row &&
      (await firstRow<RunOfTask>(
        database,
        `SELECT kind, created_by, as_of, template_id, version, rollout_order
         FROM runs
         WHERE id = ?`,
        [row.run_id],
      ))
    if (!row || !run) return null
    await change(
      database,
      `UPDATE tasks
       SET state = ?, attempts = attempts + 1, lease_epoch = lease_epoch + 1,
         lease_until = TIMESTAMPADD(SECOND, ?, NOW(3)), worked_by = ?
       WHERE id = ?`,
      [row.state === 'sent' ? 'sent' : 'at-work', leaseSeconds, worker, row.id],
    )
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
      rollout: orderOf(run.rollout_order),
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
       WHERE tasks.state = 'at-work' AND tasks.lease_until < NOW(3)`,
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
       WHERE id = ? AND lease_epoch = ? AND payload IS NOT NULL`,
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
       WHERE id = ? AND lease_epoch = ?`,
      [sent.key, sent.payloadDigest, packText(sent.payload), task.id, task.epoch],
    )
  ).affected === 1

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
     SET state = ?, message = ?, finished_at = NOW(3), lease_until = NULL,
       payload = IF(? = 'planned', payload, NULL),
       idempotency_key = IF(? = 'done', idempotency_key, NULL)
     WHERE id = ? AND lease_epoch = ? AND state IN ('at-work', 'sent')`,
    [state, message.slice(0, 2000), state, state, task.id, task.epoch],
  )
  return affected === 1
}

/** Puts a task back for later: what was sent stays sent, so that the same key asks again. */
export const postponeTask = async (
  database: Database,
  task: ClaimedTask,
  seconds: number,
  message: string,
): Promise<void> => {
  await change(
    database,
    `UPDATE tasks
     JOIN runs ON runs.id = tasks.run_id
     SET tasks.state = ${restingState}, tasks.lease_until = NULL,
       tasks.next_at = TIMESTAMPADD(MICROSECOND, ?, NOW(3)), tasks.message = ?
     WHERE tasks.id = ? AND tasks.lease_epoch = ?`,
    [Math.round(seconds * 1e6), message.slice(0, 2000), task.id, task.epoch],
  )
}

/** Forgets a key that was refused or voided, so that the task plans anew. */
export const forgetKey = async (database: Database, task: ClaimedTask): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE tasks
       SET state = 'at-work', idempotency_key = NULL, payload = NULL, payload_digest = NULL
       WHERE id = ? AND lease_epoch = ?`,
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

/** Revision of what was deployed to a course, under a lock: raised with every deployment, so that nobody plans on an old one. */
export const lockBaseRevision = async (database: Database, courseId: number): Promise<number> =>
  (
    await firstRow<{ base_revision: number }>(
      database,
      `SELECT base_revision
       FROM courses
       WHERE id = ?
       FOR UPDATE`,
      [courseId],
    )
  )?.base_revision ?? 0
export const baseRevision = async (database: Database, courseId: number): Promise<number> =>
  (
    await firstRow<{ base_revision: number }>(
      database,
      `SELECT base_revision
       FROM courses
       WHERE id = ?`,
      [courseId],
    )
  )?.base_revision ?? 0
export const raiseBaseRevision = async (database: Database, courseId: number): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET base_revision = base_revision + 1
     WHERE id = ?`,
    [courseId],
  )
}

/**
 * Ends a run of which every task has ended, or has its plans made. Called after a task's transaction has committed: inside it,
 * two tasks that end together would each see the other still open.
 */
export const closeFinishedRun = async (database: Database, id: number): Promise<void> => {
  const open = async (states: readonly TaskState[]) =>
    (await firstRow(
      database,
      `SELECT 1 AS yes
       FROM tasks
       WHERE run_id = ? AND state IN (${states.map(() => '?').join(', ')})
       LIMIT 1`,
      [id, ...states],
    )) !== null
  if (await open(['waiting', 'at-work', 'sent', 'to-plan'])) return
  await change(
    database,
    `UPDATE runs
     SET state = 'planned'
     WHERE id = ?
       AND state = 'planning'
       AND NOT EXISTS (
         SELECT 1
         FROM tasks
         WHERE tasks.run_id = runs.id AND tasks.state IN ('to-plan', 'at-work')
       )`,
    [id],
  )
  await change(
    database,
    `UPDATE runs
     SET state = 'done', finished_at = NOW(3)
     WHERE id = ?
       AND state = 'running'
       AND NOT EXISTS (
         SELECT 1
         FROM tasks
         WHERE tasks.run_id = runs.id AND tasks.state IN ('waiting', 'at-work', 'sent')
       )`,
    [id],
  )
  await sendRunMessages(database)
}

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

interface RunRow {
  id: number
  kind: RunSummary['kind']
  state: RunSummary['state']
  title: string
  by: string
  createdAt: string
  finishedAt: string | null
  asOf: string | null
}
const runColumns =
  'id, kind, state, title, created_by AS `by`, created_at AS createdAt, finished_at AS finishedAt, as_of AS asOf'

const countsOf = async (
  database: Database,
  runIds: readonly number[],
): Promise<Map<number, Record<TaskState, number>>> => {
  const counts = new Map(
    runIds.map((id) => [
      id,
      Object.fromEntries(taskStates.map((state) => [state, 0])) as Record<TaskState, number>,
    ]),
  )
  if (runIds.length === 0) return counts
  const rows = await rowsOf<{ run_id: number; state: TaskState; count: number }>(
    database,
    `SELECT run_id, state, COUNT(*) AS count
     FROM tasks
     WHERE run_id IN (${runIds.map(() => '?').join(', ')})
     GROUP BY run_id, state`,
    [...runIds],
  )
  for (const row of rows) {
    const one = counts.get(row.run_id)
    if (one) one[row.state] = Number(row.count)
  }
  return counts
}

const summaryOf = (row: RunRow, counts: Record<TaskState, number>): RunSummary => ({
  ...row,
  createdAt: instantOfRow(row.createdAt),
  finishedAt: row.finishedAt === null ? null : instantOfRow(row.finishedAt),
  counts,
})

export const listRuns = async (
  database: Database,
  kinds: readonly RunSummary['kind'][],
  most = 50,
): Promise<RunSummary[]> => {
  const rows = await rowsOf<RunRow>(
    database,
    `SELECT ${runColumns}
     FROM runs
     WHERE kind IN (${kinds.map(() => '?').join(', ')})
     ORDER BY id DESC
     LIMIT ?`,
    [...kinds, String(most)],
  )
  const counts = await countsOf(
    database,
    rows.map((row) => row.id),
  )
  return rows.flatMap((row) => {
    const one = counts.get(row.id)
    return one ? [summaryOf(row, one)] : []
  })
}

/** So many tasks of a run are told one by one, those that ask for somebody first; the rest only counted. */
const mostTasksTold = 400

export const findRun = async (database: Database, id: number): Promise<RunDetail | null> => {
  const row = await firstRow<RunRow & { rollout_order: string | null }>(
    database,
    `SELECT ${runColumns}, rollout_order
     FROM runs
     WHERE id = ?`,
    [id],
  )
  const counts = row && (await countsOf(database, [id])).get(id)
  if (!row || !counts) return null
  const tasks = await rowsOf<
    Omit<RunTask, 'renames' | 'mends' | 'plan'> & {
      proposal: string | null
      planState: PlanSummary['state'] | null
      planReason: string | null
      undecided: number | null
    }
  >(
    database,
    `SELECT tasks.id, tasks.course_id AS course, courses.code, courses.title, tasks.state,
       tasks.attempts, tasks.message, tasks.finished_at AS finishedAt, tasks.proposal,
       JSON_VALUE(tasks.plan_summary, '$.state') AS planState,
       JSON_VALUE(tasks.plan_summary, '$.reason') AS planReason,
       JSON_VALUE(tasks.plan_summary, '$.undecided') AS undecided
     FROM tasks
     JOIN courses ON courses.id = tasks.course_id
     WHERE tasks.run_id = ?
     ORDER BY FIELD(
       tasks.state, 'held', 'failed', 'sent', 'at-work', 'planned', 'waiting', 'to-plan', 'done',
         'cancelled'
     ), courses.code, tasks.id
     LIMIT ?`,
    [id, String(row.kind === 'renames' || row.kind === 'mends' ? 10_000 : mostTasksTold)],
  )
  const speed = await firstRow<{ finished: number; seconds: number | null }>(
    database,
    `SELECT COUNT(*) AS finished,
       TIMESTAMPDIFF(MICROSECOND, MIN(finished_at), NOW(3)) / 1e6 AS seconds
     FROM tasks
     WHERE run_id = ?
       AND state IN ('done', 'planned')
       AND finished_at > TIMESTAMPADD(SECOND, -30, NOW(3))`,
    [id],
  )
  const left = counts['to-plan'] + counts.waiting + counts['at-work'] + counts.sent
  const perSecond =
    (row.state === 'running' || row.state === 'planning') &&
    speed &&
    Number(speed.finished) > 1 &&
    Number(speed.seconds) > 0
      ? Number(speed.finished) / Number(speed.seconds)
      : null
  const { rollout_order: orderText, ...plain } = row
  const stored = orderOf(orderText)
  return {
    ...summaryOf(plain, counts),
    order: stored?.order ?? null,
    rule: stored?.rule ?? null,
    standing: stored?.standing ?? false,
    tasks: tasks.map(({ proposal, planState, planReason, undecided, ...task }) => ({
      ...task,
      plan:
        planState === null
          ? null
          : { state: planState, reason: planReason ?? '', undecided: Number(undecided ?? 0) },
      renames:
        proposal === null || row.kind !== 'renames'
          ? []
          : (JSON.parse(proposal) as ProposedRename[]),
      mends:
        proposal === null || row.kind !== 'mends'
          ? []
          : (JSON.parse(proposal) as RunTask['mends']).map(({ message, changes }) => ({
              message,
              changes,
            })),
      finishedAt: task.finishedAt === null ? null : instantOfRow(task.finishedAt),
    })),
    perSecond,
    secondsLeft: perSecond === null ? null : left / perSecond,
  }
}

/** Whether somebody may see a run: an instructor only one whose courses are all their own. */
export const mayFollowRun = async (
  database: Database,
  id: number,
  person: Pick<Person, 'role' | 'email'>,
): Promise<boolean> => {
  if (person.role !== 'instructor')
    return (
      (await firstRow(
        database,
        `SELECT 1 AS yes
         FROM runs
         WHERE id = ?`,
        [id],
      )) !== null
    )
  const row = await firstRow<{ tasks: number; own: number }>(
    database,
    `SELECT COUNT(*) AS tasks,
       COALESCE(
         SUM(
           EXISTS (
             SELECT 1
             FROM course_instructors
             WHERE course_instructors.course_id = tasks.course_id AND course_instructors.email = ?
           )
         ), 0
       ) AS own
     FROM tasks
     WHERE run_id = ?`,
    [person.email, id],
  )
  return row !== null && Number(row.tasks) > 0 && Number(row.tasks) === Number(row.own)
}

/** A short text that changes whenever something of a run does. */
export const runPulse = async (database: Database, id: number): Promise<string | null> => {
  const row = await firstRow<{ pulse: string }>(
    database,
    `SELECT CONCAT(
       runs.state, ':',
         (
           SELECT GROUP_CONCAT(
             CONCAT(grouped.state, grouped.count, '.', grouped.attempts, '.', grouped.latest)
             ORDER BY grouped.state
           )
           FROM (
             SELECT state, COUNT(*) AS count, SUM(attempts) AS attempts,
               COALESCE(UNIX_TIMESTAMP(MAX(finished_at)), 0) AS latest
             FROM tasks
             WHERE run_id = ?
             GROUP BY state
           ) AS grouped
         )
     ) AS pulse
     FROM runs
     WHERE runs.id = ?`,
    [id, id],
  )
  return row?.pulse ?? null
}

export const commands = ['approve', 'pause', 'resume', 'cancel', 'retry'] as const
export type Command = (typeof commands)[number]

const idsIn = (courses: readonly number[] | undefined): { sql: string; values: number[] } =>
  courses
    ? { sql: ` AND course_id IN (${courses.map(() => '?').join(', ')})`, values: [...courses] }
    : { sql: '', values: [] }

/**
 * Approves, pauses, resumes, cancels or retries a run. What was sent already is always followed to its end.
 * @param courses which of its courses are approved; all whose plan is ready without it
 */
export const commandRun = async (
  pool: Pool,
  id: number,
  command: Command,
  who: string,
  courses?: readonly number[],
): Promise<boolean> =>
  inTransaction(pool, async (database) => {
    const run = await firstRow<{ state: string; kind: string }>(
      database,
      `SELECT state, kind
       FROM runs
       WHERE id = ?
       FOR UPDATE`,
      [id],
    )
    if (!run) return false
    if (command === 'approve') {
      const chosen = idsIn(courses)
      // Plans that came out differently and wait for a second look.
      const { affected } = await change(
        database,
        `UPDATE tasks
         SET state = 'waiting', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
         WHERE run_id = ? AND state = 'held'${chosen.sql}`,
        [id, ...chosen.values],
      )
      if (run.state === 'planned' && run.kind === 'rollout') {
        await change(
          database,
          `UPDATE tasks
           SET state = 'waiting', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
           WHERE run_id = ?
             AND state = 'planned'
             AND JSON_VALUE(plan_summary, '$.state') = 'ready'${chosen.sql}`,
          [id, ...chosen.values],
        )
        await change(
          database,
          `UPDATE tasks
           SET state = 'cancelled', payload = NULL, finished_at = NOW(3),
             message = COALESCE(
               IF(
                 JSON_VALUE(plan_summary, '$.state') = 'ready', 'left out of the approval',
                   JSON_VALUE(plan_summary, '$.reason')
               ), ''
             )
           WHERE run_id = ? AND state = 'planned'`,
          [id],
        )
      }
      await change(
        database,
        `UPDATE runs
         SET state = 'running'
         WHERE id = ? AND (state = 'planned' OR (state = 'done' AND ? > 0))`,
        [id, affected],
      )
    }
    if (command === 'pause')
      await change(
        database,
        `UPDATE runs
         SET state = 'paused'
         WHERE id = ? AND state = 'running'`,
        [id],
      )
    if (command === 'resume')
      await change(
        database,
        `UPDATE runs
         SET state = 'running'
         WHERE id = ? AND state = 'paused'`,
        [id],
      )
    if (command === 'cancel') {
      await change(
        database,
        `UPDATE tasks
         SET state = 'cancelled', payload = NULL, finished_at = NOW(3),
           message = 'cancelled before it began'
         WHERE run_id = ? AND state IN ('waiting', 'to-plan', 'planned', 'held')`,
        [id],
      )
      await change(
        database,
        `UPDATE runs
         SET state = 'cancelled', finished_at = NOW(3)
         WHERE id = ? AND state IN ('planning', 'planned', 'running', 'paused')`,
        [id],
      )
    }
    if (command === 'retry') {
      const { affected } = await change(
        database,
        `UPDATE tasks
         SET state = 'waiting', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
         WHERE run_id = ? AND state = 'failed'`,
        [id],
      )
      if (affected > 0)
        await change(
          database,
          `UPDATE runs
           SET state = 'running', finished_at = NULL
           WHERE id = ?`,
          [id],
        )
    }
    await recordAudit(database, { who, what: `run: ${command}`, subject: `run ${id}` })
    return true
  })

/** Consequences of plans that look alike: each as it is where it is widest. */
const widest = (
  known: PlanSummary['consequences'],
  more: PlanSummary['consequences'],
): PlanSummary['consequences'] => [
  ...known.map(
    (one) => more.find((other) => other.code === one.code && other.count > one.count) ?? one,
  ),
  ...more.filter((one) => !known.some((other) => other.code === one.code)),
]

/** The plans of a rollout, those that look alike together; the largest groups first. */
export const shapesOf = async (database: Database, id: number): Promise<ShapeGroup[]> => {
  const rows = await rowsOf<{
    course: number
    code: string
    title: string
    state: string
    shape: string
    summary: string
    sections: string | null
  }>(
    database,
    `SELECT tasks.course_id AS course, courses.code, courses.title, tasks.state,
       tasks.plan_shape AS shape, tasks.plan_summary AS summary,
       (
         SELECT GROUP_CONCAT(class_sections.name ORDER BY class_sections.name SEPARATOR '\n')
         FROM class_sections
         WHERE class_sections.course_id = courses.id
       ) AS sections
     FROM tasks
     JOIN courses ON courses.id = tasks.course_id
     WHERE tasks.run_id = ? AND tasks.plan_shape IS NOT NULL
     ORDER BY courses.code, tasks.id`,
    [id],
  )
  const groups = new Map<string, ShapeGroup>()
  for (const { shape, summary, sections, ...course } of rows) {
    let group = groups.get(shape)
    const own = JSON.parse(summary) as PlanSummary
    if (!group) groups.set(shape, (group = { shape, summary: own, courses: [] }))
    else
      group.summary = {
        ...group.summary,
        consequences: widest(group.summary.consequences, own.consequences),
      }
    group.courses.push({ ...course, classSections: sections === null ? [] : sections.split('\n') })
  }
  return [...groups.values()].sort((a, b) => b.courses.length - a.courses.length)
}

/** What a rollout planned for one course: its order, decisions and summary; null when the course is not in it. */
export const findPlanned = async (
  database: Database,
  run: number,
  course: number,
): Promise<{
  stored: StoredOrder
  decisions: Record<string, Decision>
  sourceCourseId: number | null
  summary: PlanSummary | null
  state: TaskState
} | null> => {
  const row = await firstRow<{
    rollout_order: string | null
    decisions: string | null
    source_course_id: number | null
    plan_summary: string | null
    state: TaskState
  }>(
    database,
    `SELECT runs.rollout_order, tasks.decisions, tasks.source_course_id, tasks.plan_summary,
       tasks.state
     FROM tasks
     JOIN runs ON runs.id = tasks.run_id
     WHERE tasks.run_id = ? AND tasks.course_id = ?`,
    [run, course],
  )
  const stored = row && orderOf(row.rollout_order)
  if (!row || !stored) return null
  return {
    stored,
    decisions:
      row.decisions === null ? {} : (JSON.parse(row.decisions) as Record<string, Decision>),
    sourceCourseId: row.source_course_id,
    summary: row.plan_summary === null ? null : (JSON.parse(row.plan_summary) as PlanSummary),
    state: row.state,
  }
}

/**
 * Takes decisions down and has what they touch planned again: single ones their course, everything else all courses that
 * are not under way.
 */
export const decide = async (
  pool: Pool,
  id: number,
  wanted: z.output<typeof DecideRequest>,
  who: string,
): Promise<'decided' | 'missing' | 'too-late'> =>
  inTransaction(pool, async (database) => {
    const run = await firstRow<{ state: string; rollout_order: string | null }>(
      database,
      `SELECT state, rollout_order
       FROM runs
       WHERE id = ? AND kind = 'rollout'
       FOR UPDATE`,
      [id],
    )
    const stored = run && orderOf(run.rollout_order)
    if (!run || !stored) return 'missing'
    if (run.state !== 'planned' && run.state !== 'planning') return 'too-late'
    const { order } = stored
    const again: StoredOrder = {
      ...stored,
      ...(wanted.rule === undefined ? {} : { rule: wanted.rule }),
      order:
        order.mode !== 'version'
          ? order
          : {
              ...order,
              ...(wanted.except ? { except: wanted.except } : {}),
              ...(wanted.only === undefined ? {} : { only: wanted.only }),
              ...(wanted.restore ? { restore: wanted.restore } : {}),
            },
    }
    const wide = JSON.stringify(again) !== JSON.stringify(stored)
    if (wide)
      await change(
        database,
        `UPDATE runs
         SET rollout_order = ?
         WHERE id = ?`,
        [JSON.stringify(again), id],
      )
    for (const course of new Set(wanted.decisions.map((one) => one.course))) {
      const decisions = wanted.decisions.filter((one) => one.course === course)
      const task = await firstRow<{ decisions: string | null }>(
        database,
        `SELECT decisions
         FROM tasks
         WHERE run_id = ? AND course_id = ?
         FOR UPDATE`,
        [id, course],
      )
      if (!task) return 'missing'
      const known: Record<string, Decision> =
        task.decisions === null ? {} : (JSON.parse(task.decisions) as Record<string, Decision>)
      for (const { instance, field, decision } of decisions) {
        if (decision === null) delete known[`${instance}/${field}`]
        else known[`${instance}/${field}`] = decision
      }
      await change(
        database,
        `UPDATE tasks
         SET decisions = ?, state = 'to-plan', attempts = 0, next_at = NOW(3), finished_at = NULL
         WHERE run_id = ? AND course_id = ? AND state IN ('planned', 'to-plan', 'failed')`,
        [JSON.stringify(known), id, course],
      )
    }
    if (wide)
      await change(
        database,
        `UPDATE tasks
         SET state = 'to-plan', attempts = 0, next_at = NOW(3), finished_at = NULL
         WHERE run_id = ? AND state IN ('planned', 'failed')`,
        [id],
      )
    await change(
      database,
      `UPDATE runs
       SET state = 'planning'
       WHERE id = ?
         AND state = 'planned'
         AND EXISTS (SELECT 1 FROM tasks WHERE tasks.run_id = runs.id AND tasks.state = 'to-plan')`,
      [id],
    )
    await recordAudit(database, {
      who,
      what: 'decided',
      subject: `run ${id}`,
      to: { rule: again.rule, decisions: wanted.decisions.length },
    })
    return 'decided'
  })
