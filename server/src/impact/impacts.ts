import { Template, type CourseImpact } from '@wickerframe/core'
import type { RunSummary } from '@wickerframe/contract'
import { change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { readStored } from '../templates/templates.ts'
import { instantOfRow } from '../moment.ts'

/** A draft as it is held against courses. */
export interface HeldDraft {
  templateId: number
  revision: number
  template: Template
}

export const keepHeldDraft = async (
  database: Database,
  run: number,
  { templateId, revision, template }: HeldDraft,
): Promise<void> => {
  await change(
    database,
    `INSERT INTO impacts (run_id, template_id, revision, document)
     VALUES (?, ?, ?, ?)`,
    [run, templateId, revision, JSON.stringify(template)],
  )
}

/** What earlier drafts of a template would have changed is of no use to anybody once another is held against courses. */
export const forgetHeldBefore = (database: Database, templateId: number, run: number) =>
  change(
    database,
    `DELETE FROM impacts
     WHERE template_id = ? AND run_id < ?`,
    [templateId, run],
  )

/** The draft of a run; null when it was forgotten. It never changes. */
export const findHeldDraft = async (database: Database, run: number): Promise<Template | null> => {
  const row = await firstRow<{ document: string }>(
    database,
    `SELECT document
     FROM impacts
     WHERE run_id = ?`,
    [run],
  )
  return row && readStored(`the draft held against courses by run ${run}`, row.document)
}

/** Tells the drafts of runs apart; null when it was forgotten. */
export const digestOfHeld = async (database: Database, run: number): Promise<string | null> =>
  (
    await firstRow<{ digest: string }>(
      database,
      `SELECT MD5(document) AS digest
       FROM impacts
       WHERE run_id = ?`,
      [run],
    )
  )?.digest ?? null

/** Runs that hold a draft of a template against courses and are not over. */
export const openRunsOf = (database: Database, templateId: number) =>
  rowsOf<{ id: number }>(
    database,
    `SELECT runs.id
     FROM impacts
     JOIN runs ON runs.id = impacts.run_id
     WHERE impacts.template_id = ? AND runs.state IN ('running', 'paused')
     FOR UPDATE`,
    [templateId],
  )

interface LastHeld {
  run: number
  revision: number
  state: RunSummary['state']
  by: string
  at: string
}

/** The run that last held a draft of a template against courses; null when none did, or it was forgotten. */
export const findLastHeld = async (database: Database, key: string): Promise<LastHeld | null> => {
  const row = await firstRow<LastHeld>(
    database,
    `SELECT impacts.run_id AS run, impacts.revision, runs.state, runs.created_by AS \`by\`,
       runs.created_at AS \`at\`
     FROM impacts
     JOIN templates ON templates.id = impacts.template_id
     JOIN runs ON runs.id = impacts.run_id
     WHERE templates.template_key = ?
     ORDER BY impacts.run_id DESC
     LIMIT 1`,
    [key],
  )
  return row && { ...row, at: instantOfRow(row.at) }
}

/** Keeps what a draft would change for courses; nothing of it, when the draft was forgotten meanwhile. */
export const keepImpacts = async (
  database: Database,
  run: number,
  impacts: ReadonlyMap<number, CourseImpact>,
): Promise<void> => {
  if (impacts.size === 0) return
  await change(
    database,
    `INSERT IGNORE INTO course_impacts (run_id, course_id, impact)
     VALUES ${[...impacts].map(() => '(?, ?, ?)').join(', ')}
     ON DUPLICATE KEY UPDATE impact = VALUES(impact)`,
    [...impacts].flatMap(([course, impact]) => [run, course, JSON.stringify(impact)]),
  )
}

export const listImpacts = async (
  database: Database,
  run: number,
): Promise<{ course: number; impact: CourseImpact }[]> =>
  (
    await rowsOf<{ course_id: number; impact: string }>(
      database,
      `SELECT course_id, impact
       FROM course_impacts
       WHERE run_id = ?
       ORDER BY course_id`,
      [run],
    )
  ).map(({ course_id, impact }) => ({
    course: course_id,
    impact: JSON.parse(impact) as CourseImpact,
  }))
