import type { Pool } from 'mysql2/promise'
import { change, firstRow, rowsOf } from '../transaction.ts'
import { tableOptions } from './files.ts'

/** Makes the table in which it stands which migrations have run. */
export const ensureRecords = (pool: Pool) =>
  change(
    pool,
    `CREATE TABLE IF NOT EXISTS migrations (
       name VARCHAR(200) NOT NULL PRIMARY KEY,
       checksum CHAR(64) NOT NULL,
       run_at DATETIME(3) NOT NULL
     ) ${tableOptions}`,
  )

const hasRecords = async (pool: Pool): Promise<boolean> =>
  (await firstRow(
    pool,
    `SELECT 1 AS yes
     FROM information_schema.tables
     WHERE table_schema = DATABASE() AND table_name = 'migrations'`,
  )) !== null

/** Checksums of the migrations that have run, by file name; none before the first. */
export const recordedRuns = async (pool: Pool): Promise<Map<string, string>> => {
  if (!(await hasRecords(pool))) return new Map()
  const rows = await rowsOf<{ name: string; checksum: string }>(
    pool,
    `SELECT name, checksum
     FROM migrations`,
  )
  return new Map(rows.map((row) => [row.name, row.checksum]))
}

export const recordRun = (pool: Pool, name: string, checksum: string) =>
  change(
    pool,
    `INSERT INTO migrations (name, checksum, run_at)
     VALUES (?, ?, NOW(3))`,
    [name, checksum],
  )

/** Asks a table of ours for its newest row: a database node that is up may still answer nothing. @throws what the driver does */
export const answers = async (pool: Pool): Promise<void> => {
  await firstRow(
    pool,
    `SELECT name
     FROM migrations
     ORDER BY name DESC
     LIMIT 1`,
  )
}
