import type { FollowUp } from '@wickerframe/contract'
import {
  anyOf,
  change,
  firstRow,
  rowsOf,
  type Database,
  institutionNow,
} from '@wickerframe/storage'
import { byCourse } from '../courses/byCourse.ts'
import { instantOfRow } from '../moment.ts'

export const listFollowUps = async (database: Database, courseId: number): Promise<FollowUp[]> =>
  (
    await rowsOf<{
      fingerprint: string
      state: FollowUp['state']
      owner: string
      message: string
      note: string
      raisedBy: string
      raisedAt: string
      promisedFor: string | null
      answer: string
    }>(
      database,
      `SELECT fingerprint, state, owner, message, note, raised_by AS raisedBy,
         raised_at AS raisedAt, promised_for AS promisedFor, answer
       FROM follow_ups
       WHERE course_id = ?
       ORDER BY raised_at, fingerprint`,
      [courseId],
    )
  ).map((row) => ({ ...row, raisedAt: instantOfRow(row.raisedAt) }))

/** A place of a finding of a course, and with whom it is raised by whom. */
export interface RaisedPlace {
  courseId: number
  fingerprint: string
  owner: string
  message: string
  note: string
  by: string
}
const rowsAtOnce = 500

/** Raises places of findings with somebody; one that was mended or closed is raised again. */
export const raiseFollowUps = async (
  database: Database,
  raised: readonly RaisedPlace[],
): Promise<void> => {
  for (let from = 0; from < raised.length; from += rowsAtOnce) {
    const rows = raised.slice(from, from + rowsAtOnce)
    await change(
      database,
      `INSERT INTO follow_ups (
         course_id, fingerprint, state, owner, message, note, raised_by, raised_at
       )
       VALUES ${rows.map(() => `(?, ?, 'raised', ?, ?, ?, ?, ${institutionNow})`).join(', ')}
       ON DUPLICATE KEY UPDATE state = 'raised', owner = VALUES(owner), message = VALUES(message),
         note = VALUES(note), raised_by = VALUES(raised_by), raised_at = VALUES(raised_at),
         promised_for = NULL, answer = '', answered_by = NULL, answered_at = NULL, closed_at = NULL`,
      rows.flatMap(({ courseId, fingerprint, owner, message, note, by }) => [
        courseId,
        fingerprint,
        owner,
        message.slice(0, 2000),
        note,
        by,
      ]),
    )
  }
}
/** Fingerprints that are raised and not settled, in each of these courses. */
export const pendingFollowUps = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Set<string>>> =>
  new Map(
    [...byCourse(await openFollowUps(database, courseIds))].map(([courseId, rows]) => [
      courseId,
      new Set(rows.flatMap(({ fingerprint, state }) => (state === 'mended' ? [] : [fingerprint]))),
    ]),
  )
/** Whether a finding was raised and is not settled yet; the row is held, so that nobody settles it meanwhile. */
export const isRaised = async (
  database: Database,
  courseId: number,
  fingerprint: string,
): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT state
     FROM follow_ups
     WHERE course_id = ? AND fingerprint = ? AND state IN ('raised', 'promised', 'answered')
     FOR UPDATE`,
    [courseId, fingerprint],
  )) !== null
export const promiseFollowUp = async (
  database: Database,
  courseId: number,
  fingerprint: string,
  date: string,
  answer: string,
  by: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE follow_ups
       SET state = 'promised', promised_for = ?, answer = ?, answered_by = ?,
         answered_at = ${institutionNow}
       WHERE course_id = ? AND fingerprint = ? AND state IN ('raised', 'promised', 'answered')`,
      [date, answer, by, courseId, fingerprint],
    )
  ).affected === 1
export const answerFollowUp = async (
  database: Database,
  courseId: number,
  fingerprint: string,
  answer: string,
  by: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE follow_ups
       SET state = 'answered', answer = ?, answered_by = ?, answered_at = ${institutionNow}
       WHERE course_id = ? AND fingerprint = ? AND state IN ('raised', 'promised', 'answered')`,
      [answer, by, courseId, fingerprint],
    )
  ).affected === 1
export const closeFollowUp = async (
  database: Database,
  courseId: number,
  fingerprint: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE follow_ups
       SET state = 'closed', closed_at = ${institutionNow}
       WHERE course_id = ? AND fingerprint = ? AND state <> 'closed'`,
      [courseId, fingerprint],
    )
  ).affected === 1

/** After checks: what was raised and is no longer found is mended; what was held to be mended and is found again is raised again. */
export const settleFollowUps = async (
  database: Database,
  courseIds: readonly number[],
  foundIn: (courseId: number) => Promise<ReadonlySet<string>>,
): Promise<void> => {
  for (const [courseId, raised] of byCourse(await openFollowUps(database, courseIds))) {
    const open = await foundIn(courseId)
    for (const { fingerprint, state } of raised) {
      if (state !== 'mended' && !open.has(fingerprint))
        await markMended(database, courseId, fingerprint)
      else if (state === 'mended' && open.has(fingerprint))
        await raiseAgain(database, courseId, fingerprint)
    }
  }
}

const openFollowUps = (database: Database, courseIds: readonly number[]) => {
  const ids = anyOf(courseIds)
  return rowsOf<{ course_id: number; fingerprint: string; state: FollowUp['state'] }>(
    database,
    `SELECT course_id, fingerprint, state
     FROM follow_ups
     WHERE course_id IN ${ids.sql} AND state <> 'closed'`,
    ids.values,
  )
}
const markMended = (database: Database, courseId: number, fingerprint: string) =>
  change(
    database,
    `UPDATE follow_ups
     SET state = 'mended', closed_at = ${institutionNow}
     WHERE course_id = ? AND fingerprint = ?`,
    [courseId, fingerprint],
  )
const raiseAgain = (database: Database, courseId: number, fingerprint: string) =>
  change(
    database,
    `UPDATE follow_ups
     SET state = 'raised', closed_at = NULL
     WHERE course_id = ? AND fingerprint = ?`,
    [courseId, fingerprint],
  )
