import type { Rehearsal } from '@wickerframe/contract'
import { change, firstRow, rowsOf, type Database, institutionNow } from '@wickerframe/storage'
import { visibleTo } from '../courses/visible.ts'
import type { Person } from '../people/people.ts'
import { instantOfRow } from '../moment.ts'

export const addRehearsal = async (
  database: Database,
  { id, run, course, by }: { id: string; run: number; course: number; by: string },
): Promise<void> => {
  await change(
    database,
    `INSERT INTO rehearsals (id, run_id, course_id, created_by, created_at)
     VALUES (?, ?, ?, ?, ${institutionNow})`,
    [id, run, course, by],
  )
}

/** A rehearsal that stands, of a course that somebody may see. */
export const findRehearsal = async (
  database: Database,
  id: string,
  person: Person,
): Promise<{ id: string } | null> => {
  const { where, values } = visibleTo(person, 'rehearsals.course_id')
  return firstRow(
    database,
    `SELECT id
     FROM rehearsals
     WHERE id = ? AND discarded_at IS NULL AND (${where})`,
    [id, ...values],
  )
}

/** Rehearsals of courses that somebody may see, newest first. */
export const listRehearsals = async (
  database: Database,
  platformUrl: string,
  person: Person,
): Promise<Rehearsal[]> => {
  const { where, values } = visibleTo(person, 'rehearsals.course_id')
  return (
    await rowsOf<Omit<Rehearsal, 'address'>>(
      database,
      `SELECT id, course_id AS course, created_at AS createdAt
       FROM rehearsals
       WHERE discarded_at IS NULL AND (${where})
       ORDER BY created_at DESC`,
      values,
    )
  ).map((row) => ({
    ...row,
    createdAt: instantOfRow(row.createdAt),
    address: new URL(`/courses/${row.id}`, platformUrl).href,
  }))
}

export const discardRehearsal = async (database: Database, id: string): Promise<void> => {
  await change(
    database,
    `UPDATE rehearsals
     SET discarded_at = ${institutionNow}
     WHERE id = ?`,
    [id],
  )
}
