import type { AuditEntry } from '@wickerframe/contract'
import { change, institutionNow, rowsOf, type Database, holding } from '@wickerframe/storage'
import { instantOfRow } from '../moment.ts'

/** Writes who changed what, from what to what. Call it in the transaction of the change. */
export const recordAudit = async (
  database: Database,
  entry: { who: string; what: string; subject: string; from?: unknown; to?: unknown },
): Promise<void> => {
  await change(
    database,
    `INSERT INTO audit (at, who, what, subject, from_value, to_value)
     VALUES (${institutionNow}, ?, ?, ?, ?, ?)`,
    [
      entry.who,
      entry.what,
      entry.subject,
      entry.from === undefined ? null : JSON.stringify(entry.from),
      entry.to === undefined ? null : JSON.stringify(entry.to),
    ],
  )
}

export interface AuditFilter {
  /** Part of an e-mail address. */
  who: string | null
  what: string | null
  /** Part of what it was done to. */
  subject: string | null
  /** Only entries older than this one. */
  before: number | null
}
const longestShown = 2000

/** What was done, newest first. */
export const listAudit = async (
  database: Database,
  { who, what, subject, before }: AuditFilter,
  most: number,
): Promise<AuditEntry[]> => {
  const narrowed: readonly (readonly [sql: string, value: string | number | null])[] = [
    ['who LIKE ?', who === null ? null : holding(who)],
    ['what = ?', what],
    ['subject LIKE ?', subject === null ? null : holding(subject)],
    ['id < ?', before],
  ]
  const used = narrowed.filter(([, value]) => value !== null)
  const rows = await rowsOf<AuditEntry>(
    database,
    `SELECT id, at, who, what, subject, LEFT(from_value, ${longestShown}) AS \`from\`,
       LEFT(to_value, ${longestShown}) AS \`to\`
     FROM audit
     WHERE ${['TRUE', ...used.map(([sql]) => sql)].join(' AND ')}
     ORDER BY id DESC
     LIMIT ?`,
    [...used.map(([, value]) => value), String(most)],
  )
  return rows.map((row) => ({ ...row, at: instantOfRow(row.at) }))
}

export const listAuditKinds = async (database: Database): Promise<string[]> =>
  (
    await rowsOf<{ what: string }>(
      database,
      `SELECT DISTINCT what
       FROM audit
       ORDER BY what`,
    )
  ).map((row) => row.what)

/** Takes away entries older than so many days, some at a time. */
export const forgetAudit = (database: Database, days: number) =>
  change(
    database,
    `DELETE FROM audit
     WHERE at < TIMESTAMPADD(DAY, -?, ${institutionNow})
     ORDER BY id
     LIMIT 1000`,
    [days],
  )
