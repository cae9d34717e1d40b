import type { Pool } from 'mysql2/promise'
import type { z } from 'zod'
import type { Decision } from '@wickerframe/core'
import type { DecideRequest, PlanSummary, ShapeGroup, TaskState } from '@wickerframe/contract'
import { change, firstRow, inTransaction, rowsOf, type Database } from '@wickerframe/storage'
import { recordAudit } from '../audit/audit.ts'
import { planAllAgain, storeDecisions } from '../queue/commands.ts'
import { orderOf, type StoredOrder } from './rolloutOrder.ts'

/** Consequences of plans that look alike: each as it is where it is widest. */
const widest = (
  known: PlanSummary['consequences'],
  more: PlanSummary['consequences'],
): PlanSummary['consequences'] => [
  ...known.map(
    (consequence) =>
      more.find((other) => other.code === consequence.code && other.count > consequence.count) ??
      consequence,
  ),
  ...more.filter(({ code }) => !known.some((other) => other.code === code)),
]

/** The plans of a rollout, those that look alike together; the largest groups first. */
export const shapesOf = async (database: Database, id: number): Promise<ShapeGroup[]> => {
  const rows = await rowsOf<{
    course: number
    platformId: string
    code: string
    title: string
    state: string
    stands_under: string | null
    shape: string
    summary: string
    sections: string | null
    digest: string | null
  }>(
    database,
    `SELECT tasks.course_id AS course, courses.platform_id AS platformId, courses.code,
       courses.title, tasks.state, tasks.plan_shape AS shape, tasks.plan_summary AS summary,
       tasks.plan_digest AS digest, CASE
       WHEN templates.template_key <> JSON_VALUE(
         runs.rollout_order, '$.order.template'
       ) THEN templates.title END AS stands_under,
         (
           SELECT GROUP_CONCAT(class_sections.name ORDER BY class_sections.name SEPARATOR '\n')
           FROM class_sections
           WHERE class_sections.course_id = courses.id
         ) AS sections
     FROM tasks
     JOIN runs ON runs.id = tasks.run_id
     JOIN courses ON courses.id = tasks.course_id
     LEFT JOIN templates ON templates.id = courses.template_id
     WHERE tasks.run_id = ? AND tasks.plan_shape IS NOT NULL
     ORDER BY courses.code, tasks.id`,
    [id],
  )
  const groups = new Map<string, ShapeGroup>()
  for (const { shape, summary, sections, digest, stands_under, ...course } of rows) {
    let group = groups.get(shape)
    const own = JSON.parse(summary) as PlanSummary
    if (!group) groups.set(shape, (group = { shape, summary: own, courses: [] }))
    else
      group.summary = {
        ...group.summary,
        consequences: widest(group.summary.consequences, own.consequences),
      }
    group.courses.push({
      ...course,
      leaves: stands_under,
      digest: digest ?? '',
      classSections: sections === null ? [] : sections.split('\n'),
    })
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
    const run = await lockRollout(database, id)
    const stored = run && orderOf(run.rollout_order)
    if (!run || !stored) return 'missing'
    // After the run, what was left undecided in single courses can still be: their plans are made again and approved again.
    const isOver = run.state === 'done'
    if (run.state !== 'planned' && run.state !== 'planning' && !isOver) return 'too-late'
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
    if (isOver && wide) return 'too-late'
    if (wide) await storeOrder(database, id, again)
    for (const course of new Set(wanted.decisions.map((decision) => decision.course))) {
      const decisions = wanted.decisions.filter((decision) => decision.course === course)
      const task = await lockDecisions(database, id, course)
      if (!task) return 'missing'
      const known: Record<string, Decision> =
        task.decisions === null ? {} : (JSON.parse(task.decisions) as Record<string, Decision>)
      for (const { instance, field, decision } of decisions) {
        if (decision === null) delete known[`${instance}/${field}`]
        else known[`${instance}/${field}`] = decision
      }
      await storeDecisions(database, id, course, known)
    }
    if (wide) await planAllAgain(database, id)
    await beginPlanning(database, id)
    await recordAudit(database, {
      who,
      what: 'decided',
      subject: `run ${id}`,
      to: { rule: again.rule, decisions: wanted.decisions.length },
    })
    return 'decided'
  })

const lockRollout = (database: Database, id: number) =>
  firstRow<{ state: string; rollout_order: string | null }>(
    database,
    `SELECT state, rollout_order
     FROM runs
     WHERE id = ? AND kind = 'rollout'
     FOR UPDATE`,
    [id],
  )
const storeOrder = (database: Database, id: number, order: StoredOrder) =>
  change(
    database,
    `UPDATE runs
     SET rollout_order = ?
     WHERE id = ?`,
    [JSON.stringify(order), id],
  )
const lockDecisions = (database: Database, id: number, course: number) =>
  firstRow<{ decisions: string | null }>(
    database,
    `SELECT decisions
     FROM tasks
     WHERE run_id = ? AND course_id = ?
     FOR UPDATE`,
    [id, course],
  )
const beginPlanning = (database: Database, id: number) =>
  change(
    database,
    `UPDATE runs
     SET state = 'planning'
     WHERE id = ?
       AND state IN ('planned', 'done')
       AND EXISTS (SELECT 1 FROM tasks WHERE tasks.run_id = runs.id AND tasks.state = 'to-plan')`,
    [id],
  )

/** Of plans that were shown, the courses for which another one is made by now, or none. */
export const plansChanged = async (
  database: Database,
  runId: number,
  shown: readonly { course: number; digest: string }[],
): Promise<number[]> => {
  const now = new Map(
    (await planDigests(database, runId)).map((row) => [row.course_id, row.plan_digest]),
  )
  return shown.flatMap(({ course, digest }) => (now.get(course) === digest ? [] : [course]))
}
const planDigests = (database: Database, runId: number) =>
  rowsOf<{ course_id: number; plan_digest: string | null }>(
    database,
    `SELECT course_id, plan_digest
     FROM tasks
     WHERE run_id = ?`,
    [runId],
  )
