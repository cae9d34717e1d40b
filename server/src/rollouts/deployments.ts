import { Proof, UndoRecord, readDocument } from '@wickerframe/core'
import type { Receipt, RolloutOrder } from '@wickerframe/contract'
import { change, firstRow, rowsOf, type Database, institutionNow } from '@wickerframe/storage'
import { HeldToState } from '../courses/courses.ts'
import { instantOfRow } from '../moment.ts'
import { pack, unpack } from '../packed.ts'

export interface Deployment {
  courseId: number
  runId: number
  mode: RolloutOrder['mode']
  templateId: number | null
  version: number | null
  by: string
  engine: string
  idempotencyKey: string
  /** How many parts were created, changed, kept … */
  counts: Record<string, number>
  expansion: unknown
  undo: UndoRecord
  /** To what the course was held before; null where that does not change. */
  heldToBefore: HeldToState | null
  /** The course read again; null where nothing was sent. */
  proof: Proof | null
}

/** Appends a deployment. The same key twice is one deployment. */
export const recordDeployment = async (
  database: Database,
  deployment: Deployment,
): Promise<boolean> => {
  const { affected } = await change(
    database,
    `INSERT IGNORE INTO deployments (
       course_id, number, run_id, mode, template_id, version, deployed_at, deployed_by, engine,
         idempotency_key, parts, receipt, expansion, undo_record, held_to_before, proof
     )
     SELECT ?, COALESCE(MAX(number), 0) + 1, ?, ?, ?, ?, ${institutionNow}, ?, ?, ?, ?, ?, ?, ?, ?,
       ?
     FROM deployments
     WHERE course_id = ?`,
    [
      deployment.courseId,
      deployment.runId,
      deployment.mode,
      deployment.templateId,
      deployment.version,
      deployment.by,
      deployment.engine,
      deployment.idempotencyKey,
      deployment.counts['create'] ?? 0,
      JSON.stringify(deployment.counts),
      pack(deployment.expansion),
      pack(deployment.undo),
      deployment.heldToBefore === null ? null : JSON.stringify(deployment.heldToBefore),
      deployment.proof === null ? null : JSON.stringify(deployment.proof),
      deployment.courseId,
    ],
  )
  return affected === 1
}

export const deploymentsOf = async (database: Database, courseId: number): Promise<Receipt[]> => {
  const rows = await rowsOf<
    Omit<Receipt, 'counts' | 'proof'> & {
      receipt: string | null
      parts: number
      proof: string | null
    }
  >(
    database,
    `SELECT deployments.course_id AS course, deployments.number, deployments.mode,
       templates.title AS template, deployments.version, deployments.deployed_at AS at,
       deployments.deployed_by AS \`by\`, deployments.run_id AS run, deployments.receipt,
       deployments.parts, deployments.undone_by AS undoneBy, deployments.proof
     FROM deployments
     LEFT JOIN templates ON templates.id = deployments.template_id
     WHERE deployments.course_id = ?
     ORDER BY deployments.number DESC`,
    [courseId],
  )
  return rows.map(({ receipt, parts, proof, ...row }) => ({
    ...row,
    proof: proof === null ? null : Proof.parse(JSON.parse(proof)),
    at: instantOfRow(row.at),
    counts: receipt === null ? { create: parts } : (JSON.parse(receipt) as Record<string, number>),
  }))
}

export interface UndoableDeployment {
  number: number
  undo: UndoRecord
  /** To what the course was held before it, if it changed that and nothing has changed it since. */
  heldToBefore: HeldToState | null
}

/** What a run deployed to a course, so that it can be taken back; null when it did nothing there or it is undone already. */
export const findDeploymentOfRun = async (
  database: Database,
  runId: number,
  courseId: number,
): Promise<UndoableDeployment | null> => {
  const row = await firstRow<{
    number: number
    undo_record: Buffer | null
    undone_by: number | null
    held_to_before: string | null
    later: number
  }>(
    database,
    `SELECT number, undo_record, undone_by, held_to_before,
       EXISTS (
         SELECT 1
         FROM deployments AS later
         WHERE later.course_id = deployments.course_id
           AND later.number > deployments.number
           AND later.mode <> 'undo'
           AND later.held_to_before IS NOT NULL
           AND later.undone_by IS NULL
       ) AS later
     FROM deployments
     WHERE run_id = ? AND course_id = ?`,
    [runId, courseId],
  )
  if (!row || row.undo_record === null || row.undone_by !== null) return null
  const read = readDocument(UndoRecord, unpack(row.undo_record))
  if (!read.ok)
    throw new Error(
      `deployment ${row.number} of course ${courseId} cannot be read: ${JSON.stringify(read.problems[0])}`,
    )
  return {
    number: row.number,
    undo: read.value,
    heldToBefore:
      row.held_to_before === null || row.later
        ? null
        : HeldToState.parse(JSON.parse(row.held_to_before)),
  }
}

/** Courses a run deployed to and that were not taken back yet. */
export const coursesOfRun = async (database: Database, runId: number): Promise<number[]> =>
  (
    await rowsOf<{ course_id: number }>(
      database,
      `SELECT course_id
       FROM deployments
       WHERE run_id = ? AND undone_by IS NULL AND undo_record IS NOT NULL
       ORDER BY course_id`,
      [runId],
    )
  ).map((row) => row.course_id)

export const markUndone = async (
  database: Database,
  courseId: number,
  number: number,
  runId: number,
): Promise<void> => {
  await change(
    database,
    `UPDATE deployments
     SET undone_by = ?
     WHERE course_id = ? AND number = ?`,
    [runId, courseId, number],
  )
}

/** Of a run that took another one back and is itself taken back: what it took back is in force again. */
export const markInForceAgain = async (
  database: Database,
  courseId: number,
  undoRunId: number,
): Promise<void> => {
  await change(
    database,
    `UPDATE deployments
     SET undone_by = NULL
     WHERE course_id = ? AND undone_by = ?`,
    [courseId, undoRunId],
  )
}

/** Whether another run has a change set of this course under way, whose fate is not known. */
export const hasUnresolvedKey = async (
  database: Database,
  courseId: number,
  exceptTask: number,
): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT id
     FROM tasks
     WHERE course_id = ?
       AND id <> ?
       AND state IN ('sent', 'at-work')
       AND idempotency_key IS NOT NULL
     LIMIT 1`,
    [courseId, exceptTask],
  )) !== null

/** Whether another run is still to write to this course: what is planned before it has would not hold. */
export const isToBeWritten = async (
  database: Database,
  courseId: number,
  exceptRun: number,
): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT tasks.id
     FROM tasks
     JOIN runs ON runs.id = tasks.run_id
     WHERE tasks.course_id = ?
       AND tasks.run_id <> ?
       AND tasks.state IN ('waiting', 'at-work', 'sent')
       AND runs.state = 'running'
       AND runs.kind IN ('rollout', 'renames', 'mends', 'answers')
     LIMIT 1`,
    [courseId, exceptRun],
  )) !== null
