import type { Pool } from 'mysql2/promise'
import type { RunSummary, TaskState } from '@wickerframe/contract'
import {
  change,
  firstRow,
  inTransaction,
  rowsOf,
  institutionNow,
  type Database,
} from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import type { StoredOrder } from '../rollouts/rolloutOrder.ts'

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
  inTransaction(pool, (database) => createRunIn(database, run))

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
    return { state: 'asked', run: await createRunIn(database, run) }
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

/** Begins a run with whatever else a transaction keeps. */
export const createRunIn = async (database: Database, run: NewRun): Promise<number> => {
  const id = await insertRun(database, run)
  const state = run.state === 'planning' ? 'to-plan' : 'waiting'
  for (let i = 0; i < run.tasks.length; i += 200)
    await insertTasks(database, id, state, i, run.tasks.slice(i, i + 200))
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
/** @param from place in the run of the first of these */
const insertTasks = (
  database: Database,
  runId: number,
  state: TaskState,
  from: number,
  tasks: NewRun['tasks'],
) =>
  change(
    database,
    `INSERT INTO tasks (run_id, course_id, place, state, next_at, source_course_id, proposal)
     VALUES ${tasks.map(() => '(?, ?, ?, ?, NOW(3), ?, ?)').join(', ')}`,
    tasks.flatMap((task, i) => [
      runId,
      task.courseId,
      from + i,
      state,
      task.sourceCourseId ?? null,
      task.proposal ? JSON.stringify(task.proposal) : null,
    ]),
  )
