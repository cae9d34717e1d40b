import type { Attestation } from '@wickerframe/core'
import { anyOf, change, rowsOf, type Database, institutionNow } from '@wickerframe/storage'

interface AttestationRow extends Omit<Attestation, 'id'> {
  id: number
  course_id: number
}
export const attestationOf = ({
  id,
  rule,
  fingerprint,
  by,
  on,
  until,
  words,
}: AttestationRow): Attestation => ({ id: String(id), rule, fingerprint, by, on, until, words })
export const attestationRows = (
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
