import { anyOf, change, rowsOf, type Database, institutionNow } from '@wickerframe/storage'

/** What of a course's roster row somebody decided here: it outranks the registrar's file. */
export type DecidedField = 'status' | 'class sections' | 'instructors' | 'duties'

export const decideField = async (
  database: Database,
  courseId: number,
  field: DecidedField,
  who: string,
): Promise<void> => {
  await change(
    database,
    `INSERT INTO course_decisions (course_id, field, decided_by, decided_at)
     VALUES (?, ?, ?, ${institutionNow})
     ON DUPLICATE KEY UPDATE decided_by = VALUES(decided_by), decided_at = VALUES(decided_at)`,
    [courseId, field, who],
  )
}

/** Leaves a field to the registrar's file again. */
export const forgetDecision = async (
  database: Database,
  courseId: number,
  field: DecidedField,
): Promise<void> => {
  await change(
    database,
    `DELETE FROM course_decisions
     WHERE course_id = ? AND field = ?`,
    [courseId, field],
  )
}

/** Fields that were decided here, with who did, by course. */
export const decidedFields = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Map<string, string>>> => {
  const list = anyOf(courseIds)
  const rows = await rowsOf<{ course_id: number; field: string; decided_by: string }>(
    database,
    `SELECT course_id, field, decided_by
     FROM course_decisions
     WHERE course_id IN ${list.sql}`,
    list.values,
  )
  const decided = new Map<number, Map<string, string>>()
  for (const row of rows)
    decided.set(
      row.course_id,
      (decided.get(row.course_id) ?? new Map<string, string>()).set(row.field, row.decided_by),
    )
  return decided
}
