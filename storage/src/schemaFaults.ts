import type { Pool } from 'mysql2/promise'
import { tableOptions } from './migrations/files.ts'
import { firstRow, rowsOf } from './transaction.ts'

/**
 * What of a connection or a schema is not as the code relies on: the session's time zone and character set, and those of each
 * table, since a database made beforehand may have brought its own. In words; empty when all is well.
 */
export const schemaFaults = async (pool: Pool): Promise<string[]> => {
  const session = await sessionOf(pool)
  const tables = await tablesOtherwise(pool)
  return [
    ...(session?.zone === '+00:00'
      ? []
      : [`the database session is in time zone ${session?.zone}, not in UTC`]),
    ...(session?.charset === 'utf8mb4'
      ? []
      : [`the database session speaks ${session?.charset}, not utf8mb4`]),
    ...tables.map(
      ({ name, collation }) =>
        `table ${name} is in ${collation}; run “ALTER TABLE ${name} CONVERT TO ${tableOptions}” after a backup`,
    ),
  ]
}
const sessionOf = (pool: Pool) =>
  firstRow<{ zone: string; charset: string }>(
    pool,
    'SELECT @@session.time_zone AS zone, @@session.character_set_connection AS charset',
  )
const tablesOtherwise = (pool: Pool) =>
  rowsOf<{ name: string; collation: string }>(
    pool,
    `SELECT table_name AS name, table_collation AS collation
     FROM information_schema.tables
     WHERE table_schema = DATABASE()
       AND table_type = 'BASE TABLE'
       AND table_collation <> 'utf8mb4_nopad_bin'
     ORDER BY table_name`,
  )
