import type { Pool } from 'mysql2/promise'
import {
  may,
  taskStates,
  type PlanSummary,
  type ProposedRename,
  type RunDetail,
  type RunSummary,
  type RunTask,
  type TaskState,
} from '@wickerframe/contract'
import {
  change,
  firstRow,
  inTransaction,
  rowsOf,
  institutionNow,
  type Database,
  type Value,
} from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { sendRunMessages } from '../messages/messages.ts'
import { instantOfRow } from '../moment.ts'
import type { Person } from '../people/people.ts'
import { visibleTo } from '../courses/visible.ts'
import { orderOf, type StoredOrder } from '../rollouts/rolloutOrder.ts'

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
  /** Digest of what is asked, where asking twice is one run. */
  question?: string
}

export const createRun = (pool: Pool, run: NewRun): Promise<number> =>
  inTransaction(pool, (database) => insertWhole(database, run))

/**
 * Begins a run for a person who may have only so many open. One whose question is being asked already, with nothing read for
 * it yet, is not begun again.
 */
export const askRun = (
  pool: Pool,
  run: NewRun,
  mostOpen: number,
): Promise<{ state: 'asked'; run: number } | { state: 'too-many' }> =>
  inTransaction(pool, async (database) => {
    // One question of a person at a time: two at once see each other.
    await lockPerson(database, run.by)
    const same = run.question ? await findWaiting(database, run.by, run.question) : null
    if (same !== null) return { state: 'asked', run: same }
    if ((await countOpen(database, run.by)) >= mostOpen) return { state: 'too-many' }
    return { state: 'asked', run: await insertWhole(database, run) }
  })

const lockPerson = (database: Database, email: string) =>
  rowsOf(
    database,
    `SELECT id
     FROM people
     WHERE email = ?
     FOR UPDATE`,
    [email],
  )
const findWaiting = async (
  database: Database,
  by: string,
  question: string,
): Promise<number | null> =>
  (
    await firstRow<{ id: number }>(
      database,
      `SELECT runs.id
       FROM runs
       WHERE runs.created_by = ?
         AND runs.state = 'running'
         AND runs.question = ?
         AND NOT EXISTS (
           SELECT 1
           FROM tasks
           WHERE tasks.run_id = runs.id AND tasks.state <> 'waiting'
         )
       LIMIT 1`,
      [by, question],
    )
  )?.id ?? null
const countOpen = async (database: Database, by: string): Promise<number> =>
  Number(
    (
      await firstRow<{ count: number }>(
        database,
        `SELECT COUNT(*) AS count
         FROM runs
         WHERE created_by = ? AND state IN ('planning', 'running')`,
        [by],
      )
    )?.count,
  )

const insertWhole = async (database: Database, run: NewRun): Promise<number> => {
  const id = await insertRun(database, run)
  const state = run.state === 'planning' ? 'to-plan' : 'waiting'
  for (let i = 0; i < run.tasks.length; i += 200)
    await insertTasks(database, id, state, run.tasks.slice(i, i + 200))
  await recordAudit(database, {
    who: run.by,
    what: `${run.kind} ${run.state === 'planned' || run.state === 'planning' ? 'planned' : 'begun'}`,
    subject: `run ${id}`,
    to: { title: run.title, courses: run.tasks.length },
  })
  return id
}

const insertRun = async (database: Database, run: NewRun): Promise<number> =>
  (
    await change(
      database,
      `INSERT INTO runs (
         kind, state, title, created_by, created_at, as_of, template_id, version, rollout_order,
           question
       )
       VALUES (?, ?, ?, ?, ${institutionNow}, ?, ?, ?, ?, ?)`,
      [
        run.kind,
        run.state ?? 'running',
        run.title,
        run.by,
        run.asOf,
        run.templateId,
        run.version,
        run.rollout ? JSON.stringify(run.rollout) : null,
        run.question ?? null,
      ],
    )
  ).id
const insertTasks = (database: Database, runId: number, state: TaskState, tasks: NewRun['tasks']) =>
  change(
    database,
    `INSERT INTO tasks (run_id, course_id, state, next_at, source_course_id, proposal)
     VALUES ${tasks.map(() => '(?, ?, ?, NOW(3), ?, ?)').join(', ')}`,
    tasks.flatMap((task) => [
      runId,
      task.courseId,
      state,
      task.sourceCourseId ?? null,
      task.proposal ? JSON.stringify(task.proposal) : null,
    ]),
  )

/**
 * Ends a run of which every task has ended, or has its plans made. Called after a task's transaction has committed: inside it,
 * two tasks that end together would each see the other still open.
 */
export const closeFinishedRun = async (database: Database, id: number): Promise<void> => {
  if (await hasTasks(database, id, ['waiting', 'at-work', 'sent', 'to-plan'])) return
  await markPlanned(database, id)
  await markDone(database, id)
  await sendRunMessages(database)
}

const hasTasks = async (
  database: Database,
  id: number,
  states: readonly TaskState[],
): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT 1 AS yes
     FROM tasks
     WHERE run_id = ? AND state IN (${states.map(() => '?').join(', ')})
     LIMIT 1`,
    [id, ...states],
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
         WHERE tasks.run_id = runs.id AND tasks.state IN ('to-plan', 'at-work')
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
         WHERE tasks.run_id = runs.id AND tasks.state IN ('waiting', 'at-work', 'sent')
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
  person: Person,
  most = 50,
): Promise<RunSummary[]> => {
  const followable = followableBy(person)
  const rows = await rowsOf<RunRow>(
    database,
    `SELECT ${runColumns}
     FROM runs
     WHERE kind IN (${kinds.map(() => '?').join(', ')}) AND ${followable.where}
     ORDER BY id DESC
     LIMIT ?`,
    [...kinds, ...followable.values, String(most)],
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

const findRunRow = (database: Database, id: number) =>
  firstRow<RunRow & { rollout_order: string | null }>(
    database,
    `SELECT ${runColumns}, rollout_order
     FROM runs
     WHERE id = ?`,
    [id],
  )
const listTasks = (database: Database, runId: number, most: number) =>
  rowsOf<
    Omit<RunTask, 'renames' | 'mends' | 'plan' | 'classSections'> & {
      sections: string | null
      proposal: string | null
      planState: PlanSummary['state'] | null
      planReason: string | null
      undecided: number | null
    }
  >(
    database,
    `SELECT tasks.id, tasks.course_id AS course, courses.platform_id AS platformId, courses.code,
       courses.title, tasks.state, tasks.attempts, tasks.message, tasks.finished_at AS finishedAt,
       tasks.proposal, JSON_VALUE(tasks.plan_summary, '$.state') AS planState,
       JSON_VALUE(tasks.plan_summary, '$.reason') AS planReason,
       JSON_VALUE(tasks.plan_summary, '$.undecided') AS undecided,
       (
         SELECT GROUP_CONCAT(class_sections.name ORDER BY class_sections.name SEPARATOR '\n')
         FROM class_sections
         WHERE class_sections.course_id = courses.id
       ) AS sections
     FROM tasks
     JOIN courses ON courses.id = tasks.course_id
     WHERE tasks.run_id = ?
     ORDER BY FIELD(
       tasks.state, 'held', 'failed', 'sent', 'at-work', 'planned', 'waiting', 'to-plan', 'done',
         'cancelled'
     ), courses.code, tasks.id
     LIMIT ?`,
    [runId, String(most)],
  )
/** How many tasks ended in the last half minute, and in how many seconds. */
const speedOf = (database: Database, runId: number) =>
  firstRow<{ finished: number; seconds: number | null }>(
    database,
    `SELECT COUNT(*) AS finished,
       TIMESTAMPDIFF(MICROSECOND, MIN(finished_at), ${institutionNow}) / 1e6 AS seconds
     FROM tasks
     WHERE run_id = ?
       AND state IN ('done', 'planned')
       AND finished_at > TIMESTAMPADD(SECOND, -30, ${institutionNow})`,
    [runId],
  )

export const findRun = async (database: Database, id: number): Promise<RunDetail | null> => {
  const row = await findRunRow(database, id)
  const counts = row && (await countsOf(database, [id])).get(id)
  if (!row || !counts) return null
  const eachTold = row.kind === 'renames' || row.kind === 'mends'
  const tasks = await listTasks(database, id, eachTold ? 10_000 : mostTasksTold)
  const speed = await speedOf(database, id)
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
    tasks: tasks.map(({ proposal, planState, planReason, undecided, sections, ...task }) => ({
      ...task,
      classSections: sections === null ? [] : sections.split('\n'),
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

/** Whether somebody may see a run: whoever may see every course it is about. */
export const mayFollowRun = async (
  database: Database,
  id: number,
  person: Person,
): Promise<boolean> => {
  const { where, values } = followableBy(person)
  return (
    (await firstRow(
      database,
      `SELECT 1 AS yes
       FROM runs
       WHERE id = ? AND ${where}`,
      [id, ...values],
    )) !== null
  )
}

/** Runs whose courses are all visible to somebody; one of no course is for those who see every course. */
const followableBy = (person: Person): { where: string; values: Value[] } => {
  if (may(person, 'see every course')) return { where: '1 = 1', values: [] }
  const { where, values } = visibleTo(person, 'tasks.course_id')
  return {
    where: `EXISTS (SELECT 1 FROM tasks WHERE tasks.run_id = runs.id) AND NOT EXISTS (SELECT 1 FROM tasks WHERE tasks.run_id = runs.id AND NOT (${where}))`,
    values,
  }
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
    const run = await lockRun(database, id)
    if (!run) return false
    if (command === 'approve') await approve(database, id, run, courses)
    if (command === 'pause') await pause(database, id)
    if (command === 'resume') await resume(database, id)
    if (command === 'cancel') {
      await cancelTasks(database, id)
      await markCancelled(database, id)
    }
    if (command === 'retry' && (await requeueFailed(database, id)) > 0) await runAgain(database, id)
    await recordAudit(database, { who, what: `run: ${command}`, subject: `run ${id}` })
    return true
  })

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

const lockRun = (database: Database, id: number) =>
  firstRow<{ state: string; kind: string }>(
    database,
    `SELECT state, kind
     FROM runs
     WHERE id = ?
     FOR UPDATE`,
    [id],
  )
/** Plans that came out differently and waited for a second look. @returns how many */
const requeueHeld = async (
  database: Database,
  id: number,
  courses?: readonly number[],
): Promise<number> => {
  const chosen = idsIn(courses)
  const { affected } = await change(
    database,
    `UPDATE tasks
     SET state = 'waiting', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
     WHERE run_id = ? AND state = 'held'${chosen.sql}`,
    [id, ...chosen.values],
  )
  return affected
}
const queueReady = (database: Database, id: number, courses?: readonly number[]) => {
  const chosen = idsIn(courses)
  return change(
    database,
    `UPDATE tasks
     SET state = 'waiting', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
     WHERE run_id = ?
       AND state = 'planned'
       AND JSON_VALUE(plan_summary, '$.state') = 'ready'${chosen.sql}`,
    [id, ...chosen.values],
  )
}
/** Of plans that are not run: where only something is to be decided, the course waits for that; the rest is left out. */
const leaveOutRest = (database: Database, id: number) =>
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
     WHERE run_id = ? AND state = 'planned'`,
    [id],
  )
const onlyToDecide = `JSON_VALUE(plan_summary, '$.state') = 'nothing-to-do'
         AND JSON_VALUE(plan_summary, '$.undecided') + 0 > 0`
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
const cancelTasks = (database: Database, id: number) =>
  change(
    database,
    `UPDATE tasks
     SET state = 'cancelled', payload = NULL, finished_at = ${institutionNow},
       message = 'cancelled before it began'
     WHERE run_id = ? AND state IN ('waiting', 'to-plan', 'planned', 'held')`,
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
/** @returns how many tasks that failed are tried again */
const requeueFailed = async (database: Database, id: number): Promise<number> =>
  (
    await change(
      database,
      `UPDATE tasks
       SET state = 'waiting', attempts = 0, next_at = NOW(3), finished_at = NULL, message = ''
       WHERE run_id = ? AND state = 'failed'`,
      [id],
    )
  ).affected
const runAgain = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'running', finished_at = NULL
     WHERE id = ?`,
    [id],
  )
