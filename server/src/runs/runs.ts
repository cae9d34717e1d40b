import {
  seesWholeCollege,
  taskStates,
  type PlanSummary,
  type ProposedRename,
  type RunDetail,
  type RunSummary,
  type RunTask,
  type TaskState,
} from '@wickerframe/contract'
import { firstRow, institutionNow, rowsOf, type Database, type Value } from '@wickerframe/storage'
import { instantOfRow } from '../moment.ts'
import type { Person } from '../people/people.ts'
import { visibleTo } from '../courses/visible.ts'
import { orderOf } from '../rollouts/rolloutOrder.ts'

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
    const sums = counts.get(row.run_id)
    if (sums) sums[row.state] = Number(row.count)
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
    const sums = counts.get(row.id)
    return sums ? [summaryOf(row, sums)] : []
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

/** What tasks that were tried and are to be tried again met, the most frequent of it, and in how many courses. */
const waitsFor = (database: Database, runId: number) =>
  firstRow<{ message: string; courses: number }>(
    database,
    `SELECT message, COUNT(*) AS courses
     FROM tasks
     WHERE run_id = ? AND state IN ('to-plan', 'waiting', 'at-work', 'sent') AND message <> ''
     GROUP BY message
     ORDER BY courses DESC, message
     LIMIT 1`,
    [runId],
  )

export const findRun = async (database: Database, id: number): Promise<RunDetail | null> => {
  const row = await findRunRow(database, id)
  const counts = row && (await countsOf(database, [id])).get(id)
  if (!row || !counts) return null
  const eachTold = row.kind === 'renames' || row.kind === 'mends'
  const tasks = await listTasks(database, id, eachTold ? 10_000 : mostTasksTold)
  const pace = await paceOf(database, row, counts)
  const waiting = await waitsFor(database, id)
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
    waitsFor: waiting && { message: waiting.message, courses: Number(waiting.courses) },
    ...pace,
  }
}

/** How fast a run goes on, and how long it will take at that; null before there is a speed. */
const paceOf = async (
  database: Database,
  { id, state }: Pick<RunRow, 'id' | 'state'>,
  counts: Record<TaskState, number>,
): Promise<Pick<RunDetail, 'perSecond' | 'secondsLeft'>> => {
  const speed = state === 'running' || state === 'planning' ? await speedOf(database, id) : null
  const perSecond =
    speed && Number(speed.finished) > 1 && Number(speed.seconds) > 0
      ? Number(speed.finished) / Number(speed.seconds)
      : null
  const left = counts['to-plan'] + counts.waiting + counts['at-work'] + counts.sent
  return { perSecond, secondsLeft: perSecond === null ? null : left / perSecond }
}

/** How far a run has come. */
export const runProgress = async (database: Database, run: Pick<RunRow, 'id' | 'state'>) => {
  const counts = (await countsOf(database, [run.id])).get(run.id)
  if (!counts) return { all: 0, done: 0, failed: 0, secondsLeft: null }
  return {
    all: Object.values(counts).reduce((sum, count) => sum + count, 0),
    done: counts.done,
    failed: counts.failed,
    secondsLeft: (await paceOf(database, run, counts)).secondsLeft,
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
  if (seesWholeCollege(person)) return { where: 'TRUE', values: [] }
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
             CONCAT(grouped.state, grouped.count, '.', grouped.claims, '.', grouped.latest)
             ORDER BY grouped.state
           )
           FROM (
             SELECT state, COUNT(*) AS count, SUM(lease_epoch) AS claims,
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
