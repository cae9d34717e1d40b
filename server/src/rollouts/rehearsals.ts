import type { Rehearsal } from '@wickerframe/contract'
import { change, firstRow, rowsOf, type Database, institutionNow } from '@wickerframe/storage'
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

export const findRehearsal = async (
  database: Database,
  id: string,
): Promise<{ id: string } | null> =>
  firstRow(
    database,
    `SELECT id
     FROM rehearsals
     WHERE id = ? AND discarded_at IS NULL`,
    [id],
  )

export const listRehearsals = async (
  database: Database,
  platformUrl: string,
): Promise<Rehearsal[]> =>
  (
    await rowsOf<Omit<Rehearsal, 'address'>>(
      database,
      `SELECT id, course_id AS course, created_at AS createdAt
       FROM rehearsals
       WHERE discarded_at IS NULL
       ORDER BY created_at DESC`,
    )
  ).map((row) => ({
    ...row,
    createdAt: instantOfRow(row.createdAt),
    address: new URL(`/courses/${row.id}`, platformUrl).href,
  }))

export const discardRehearsal = async (database: Database, id: string): Promise<void> => {
  await change(
    database,
    `UPDATE rehearsals
     SET discarded_at = ${institutionNow}
     WHERE id = ?`,
    [id],
  )
}
