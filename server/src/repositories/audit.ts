import { change, type Database } from '@wickerframe/storage'

/** Writes who changed what, from what to what. Call it in the transaction of the change. */
export const recordAudit = async (
  database: Database,
  entry: { who: string; what: string; subject: string; from?: unknown; to?: unknown },
): Promise<void> => {
  await change(
    database,
    `INSERT INTO audit (at, who, what, subject, from_value, to_value)
     VALUES (NOW(3), ?, ?, ?, ?, ?)`,
    [
      entry.who,
      entry.what,
      entry.subject,
      entry.from === undefined ? null : JSON.stringify(entry.from),
      entry.to === undefined ? null : JSON.stringify(entry.to),
    ],
  )
}
