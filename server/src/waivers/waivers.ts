import type { StoredWaiver } from '@wickerframe/contract'
import type { Waiver } from '@wickerframe/core'
import {
  anyOf,
  change,
  firstRow,
  rowsOf,
  type Database,
  institutionNow,
} from '@wickerframe/storage'
import { instantOfRow } from '../moment.ts'

export interface WaiverRow {
  id: number
  course_id: number
  scope: Waiver['scope']
  rule: string | null
  part: string | null
  week: number | null
  carried: number
  fingerprint: string | null
  evidence: string | null
  from_date: string
  until_date: string | null
  reason: string
  state: StoredWaiver['state']
  asked_by: string
  asked_at: string
  decided_by: string | null
  answer: string
}
export const waiverOf = (row: WaiverRow): StoredWaiver => ({
  id: String(row.id),
  scope: row.scope,
  rule: row.rule,
  part: row.part,
  week: row.week,
  carried: row.carried === 1,
  fingerprint: row.fingerprint,
  evidence: row.evidence,
  from: row.from_date,
  until: row.until_date,
  reason: row.reason,
  state: row.state,
  askedBy: row.asked_by,
  askedAt: instantOfRow(row.asked_at),
  decidedBy: row.decided_by,
  answer: row.answer,
})
export const waiverColumns = [
  'id',
  'course_id',
  'scope',
  'rule',
  'part',
  'week',
  'fingerprint',
  'evidence',
  'from_date',
  'until_date',
  'carried',
  'reason',
  'state',
  'asked_by',
  'asked_at',
  'decided_by',
  'answer',
]
  .map((column) => `waivers.${column}`)
  .join(', ')

export const waiverRows = (
  database: Database,
  courseIds: readonly number[],
): Promise<WaiverRow[]> => {
  const ids = anyOf(courseIds)
  return rowsOf(
    database,
    `SELECT ${waiverColumns}
     FROM waivers
     WHERE course_id IN ${ids.sql}
     ORDER BY id`,
    ids.values,
  )
}
export const listWaivers = async (database: Database, courseId: number): Promise<StoredWaiver[]> =>
  (await waiverRows(database, [courseId])).map(waiverOf)

/** What a waiver excuses, from when until when, and why. */
export type NewWaiver = Omit<Waiver, 'id'> & { carried: boolean }

export const addWaiver = async (
  database: Database,
  courseId: number,
  waiver: NewWaiver,
  by: string,
  approved: boolean,
): Promise<number> =>
  (
    await change(
      database,
      `INSERT INTO waivers (
         course_id, scope, rule, part, week, fingerprint, evidence, from_date, until_date, carried,
           reason, state, asked_by, asked_at, decided_by, decided_at
       )
       VALUES (
         ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ${institutionNow}, ?, IF(?, ${institutionNow}, NULL)
       )`,
      [
        courseId,
        waiver.scope,
        waiver.rule,
        waiver.part,
        waiver.week,
        waiver.fingerprint,
        waiver.evidence,
        waiver.from,
        waiver.until,
        waiver.carried,
        waiver.reason,
        approved ? 'approved' : 'asked',
        by,
        approved ? by : null,
        approved,
      ],
    )
  ).id

/** Decides on a waiver that is in one of these states; false when it is in none of them any more. */
export const decideWaiver = async (
  database: Database,
  courseId: number,
  id: number,
  from: readonly StoredWaiver['state'][],
  to: StoredWaiver['state'],
  by: string,
  answer: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE waivers
       SET state = ?, decided_by = ?, decided_at = ${institutionNow}, answer = ?
       WHERE id = ? AND course_id = ? AND state IN (${from.map(() => '?').join(', ')})`,
      [to, by, answer, id, courseId, ...from],
    )
  ).affected === 1

export const findWaiver = async (
  database: Database,
  courseId: number,
  id: number,
): Promise<StoredWaiver | null> => {
  const row = await firstRow<WaiverRow>(
    database,
    `SELECT ${waiverColumns}
     FROM waivers
     WHERE id = ? AND course_id = ?`,
    [id, courseId],
  )
  return row ? waiverOf(row) : null
}
