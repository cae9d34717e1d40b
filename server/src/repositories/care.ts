import type { Attestation, Dispensations, Join, Waiver } from '@wickerframe/core'
import type { FollowUp, StoredWaiver } from '@wickerframe/contract'
import {
  anyOf,
  change,
  firstRow,
  rowsOf,
  type Database,
  institutionNow,
} from '@wickerframe/storage'
import { byCourse } from './byCourse.ts'
import { instantOfRow } from './moment.ts'

/** From now on results that were told before answer another question: what is waived, attested, joined or left out has changed. */
export const markJudgedAnew = async (database: Database, courseId: number): Promise<void> => {
  await change(
    database,
    `UPDATE courses
     SET judged_from = ${institutionNow}
     WHERE id = ?`,
    [courseId],
  )
}

const joinRows = (
  database: Database,
  courseIds: readonly number[],
): Promise<(Join & { course_id: number; by: string; at: string })[]> => {
  const ids = anyOf(courseIds)
  return rowsOf(
    database,
    `SELECT course_id, what, expected, found, said_by AS \`by\`, said_at AS \`at\`
     FROM joins_by_hand
     WHERE course_id IN ${ids.sql}
     ORDER BY said_at, expected`,
    ids.values,
  )
}
export const listJoins = async (
  database: Database,
  courseId: number,
): Promise<(Join & { by: string; at: string })[]> =>
  (await joinRows(database, [courseId])).map(({ what, expected, found, by, at }) => ({
    what,
    expected,
    found,
    by,
    at: instantOfRow(at),
  }))
/** What was joined and unjoined by hand in each of these courses, as the check takes it. */
export const joinsOf = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Join[]>> =>
  byCourse(
    (await joinRows(database, courseIds)).map(({ course_id, what, expected, found }) => ({
      course_id,
      what,
      expected,
      found,
    })),
  )

/** Keeps what somebody said of a pair. A join takes the place of any other join of either end. */
export const putJoin = async (
  database: Database,
  courseId: number,
  { what, expected, found }: Join,
  by: string,
): Promise<void> => {
  if (what === 'join') await forgetJoinsOfEnds(database, courseId, expected, found)
  await change(
    database,
    `INSERT INTO joins_by_hand (course_id, what, expected, found, said_by, said_at)
     VALUES (?, ?, ?, ?, ?, ${institutionNow})
     ON DUPLICATE KEY UPDATE what = VALUES(what), said_by = VALUES(said_by),
       said_at = VALUES(said_at)`,
    [courseId, what, expected, found, by],
  )
}
const forgetJoinsOfEnds = (database: Database, courseId: number, expected: string, found: string) =>
  change(
    database,
    `DELETE FROM joins_by_hand
     WHERE course_id = ? AND what = 'join' AND (expected = ? OR found = ?)`,
    [courseId, expected, found],
  )
export const forgetJoin = async (
  database: Database,
  courseId: number,
  expected: string,
  found: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `DELETE FROM joins_by_hand
       WHERE course_id = ? AND expected = ? AND found = ?`,
      [courseId, expected, found],
    )
  ).affected === 1

interface WaiverRow {
  id: number
  course_id: number
  scope: Waiver['scope']
  rule: string
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
const waiverOf = (row: WaiverRow): StoredWaiver => ({
  id: String(row.id),
  scope: row.scope,
  rule: row.rule,
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
const waiverColumns =
  'id, course_id, scope, rule, fingerprint, evidence, from_date, until_date, reason, state, asked_by, asked_at, decided_by, answer'

const waiverRows = (database: Database, courseIds: readonly number[]): Promise<WaiverRow[]> => {
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

export const addWaiver = async (
  database: Database,
  courseId: number,
  waiver: Omit<Waiver, 'id'>,
  by: string,
  approved: boolean,
): Promise<number> =>
  (
    await change(
      database,
      `INSERT INTO waivers (
         course_id, scope, rule, fingerprint, evidence, from_date, until_date, reason, state,
           asked_by, asked_at, decided_by, decided_at
       )
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?, ${institutionNow}, ?, IF(?, ${institutionNow}, NULL))`,
      [
        courseId,
        waiver.scope,
        waiver.rule,
        waiver.fingerprint,
        waiver.evidence,
        waiver.from,
        waiver.until,
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

interface AttestationRow extends Omit<Attestation, 'id'> {
  id: number
  course_id: number
}
const attestationOf = ({
  id,
  rule,
  fingerprint,
  by,
  on,
  until,
  words,
}: AttestationRow): Attestation => ({ id: String(id), rule, fingerprint, by, on, until, words })
const attestationRows = (
  database: Database,
  courseIds: readonly number[],
): Promise<AttestationRow[]> => {
  const ids = anyOf(courseIds)
  return rowsOf(
    database,
    `SELECT id, course_id, rule, fingerprint, given_by AS \`by\`, given_on AS \`on\`,
       until_date AS \`until\`, words
     FROM attestations
     WHERE course_id IN ${ids.sql} AND taken_back IS NULL
     ORDER BY id`,
    ids.values,
  )
}
export const listAttestations = async (
  database: Database,
  courseId: number,
): Promise<Attestation[]> => (await attestationRows(database, [courseId])).map(attestationOf)

export const addAttestation = async (
  database: Database,
  courseId: number,
  { rule, fingerprint, by, on, until, words }: Omit<Attestation, 'id'>,
): Promise<void> => {
  await change(
    database,
    `INSERT INTO attestations (course_id, rule, fingerprint, given_by, given_on, until_date, words)
     VALUES (?, ?, ?, ?, ?, ?, ?)`,
    [courseId, rule, fingerprint, by, on, until, words],
  )
}
export const takeAttestationBack = async (
  database: Database,
  courseId: number,
  fingerprint: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE attestations
       SET taken_back = ${institutionNow}
       WHERE course_id = ? AND fingerprint = ? AND taken_back IS NULL`,
      [courseId, fingerprint],
    )
  ).affected > 0

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

/** Raises a finding with somebody; one that was mended or closed is raised again. */
export const raiseFollowUp = async (
  database: Database,
  courseId: number,
  one: { fingerprint: string; owner: string; message: string; note: string; by: string },
): Promise<void> => {
  await change(
    database,
    `INSERT INTO follow_ups (
       course_id, fingerprint, state, owner, message, note, raised_by, raised_at
     )
     VALUES (?, ?, 'raised', ?, ?, ?, ?, ${institutionNow})
     ON DUPLICATE KEY UPDATE state = 'raised', owner = VALUES(owner), message = VALUES(message),
       note = VALUES(note), raised_by = VALUES(raised_by), raised_at = VALUES(raised_at),
       promised_for = NULL, answer = '', answered_by = NULL, answered_at = NULL, closed_at = NULL`,
    [courseId, one.fingerprint, one.owner, one.message.slice(0, 2000), one.note, one.by],
  )
}
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

const notThisWeekRows = (
  database: Database,
  courseIds: readonly number[],
): Promise<{ course_id: number; instance: string }[]> => {
  const ids = anyOf(courseIds)
  return rowsOf(
    database,
    `SELECT course_id, instance
     FROM not_this_week
     WHERE course_id IN ${ids.sql}
     ORDER BY instance`,
    ids.values,
  )
}
export const listNotThisWeek = async (database: Database, courseId: number): Promise<string[]> =>
  (await notThisWeekRows(database, [courseId])).map((row) => row.instance)
/** Part instances left out on purpose in each of these courses. */
export const notThisWeekOf = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, string[]>> =>
  new Map(
    [...byCourse(await notThisWeekRows(database, courseIds))].map(([courseId, rows]) => [
      courseId,
      rows.map((row) => row.instance),
    ]),
  )
export const leaveOutThisWeek = async (
  database: Database,
  courseId: number,
  instance: string,
  by: string,
): Promise<void> => {
  await change(
    database,
    `INSERT IGNORE INTO not_this_week (course_id, instance, said_by, said_at)
     VALUES (?, ?, ?, ${institutionNow})`,
    [courseId, instance, by],
  )
}
export const takeInThisWeek = async (
  database: Database,
  courseId: number,
  instance: string,
): Promise<void> => {
  await change(
    database,
    `DELETE FROM not_this_week
     WHERE course_id = ? AND instance = ?`,
    [courseId, instance],
  )
}

/** What is waived and attested in each of these courses, as the check takes it; nothing for those in which nothing is. */
export const dispensationsOf = async (
  database: Database,
  courseIds: readonly number[],
): Promise<Map<number, Dispensations>> => {
  const waivers = byCourse(await waiverRows(database, courseIds))
  const attestations = byCourse(await attestationRows(database, courseIds))
  return new Map(
    [...new Set([...waivers.keys(), ...attestations.keys()])].map((courseId) => [
      courseId,
      {
        waivers: (waivers.get(courseId) ?? [])
          .filter((one) => one.state === 'approved')
          .map(waiverOf)
          .map(({ id, scope, rule, fingerprint, evidence, from, until, reason }) => ({
            id,
            scope,
            rule,
            fingerprint,
            evidence,
            from,
            until,
            reason,
          })),
        attestations: (attestations.get(courseId) ?? []).map(attestationOf),
      },
    ]),
  )
}
