import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { createConnection, type Pool } from 'mysql2/promise'
import type { DatabaseAddress } from './connect.ts'
import { change, rowsOf } from './transaction.ts'

/** Makes the schema if it is not there. */
export const createSchema = async ({ database, ...address }: DatabaseAddress): Promise<void> => {
  const connection = await createConnection(address)
  try {
    await connection.query(
      `CREATE DATABASE IF NOT EXISTS \`${database.replaceAll('`', '')}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin`,
    )
  } finally {
    await connection.end()
  }
}

const leaseSeconds = 120

/**
 * Runs the numbered `.sql` files of a folder that have not run yet, in order, one DDL statement a file, each recorded
 * with its checksum, under a lease row so that two processes that start together run them once.
 * @throws Error when a file that has run was changed since
 */
export const migrate = async (pool: Pool, folder: string): Promise<string[]> => {
  await change(
    pool,
    'CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(200) NOT NULL PRIMARY KEY, checksum CHAR(64) NOT NULL, run_at DATETIME(3) NOT NULL)',
  )
  await change(
    pool,
    'CREATE TABLE IF NOT EXISTS migration_lease (id TINYINT NOT NULL PRIMARY KEY, until DATETIME(3) NOT NULL)',
  )
  await ensureLease(pool)
  while (!(await takeLease(pool))) await new Promise((resolve) => setTimeout(resolve, 200))
  try {
    const ran = await checksumsOfRun(pool)
    const run: string[] = []
    for (const name of readdirSync(folder)
      .filter((file) => file.endsWith('.sql'))
      .sort()) {
      const sql = readFileSync(join(folder, name), 'utf8')
      const checksum = createHash('sha256').update(sql).digest('hex')
      const known = ran.get(name)
      if (known !== undefined && known !== checksum)
        throw new Error(
          `migration ${name} was changed after it had run; restore it and add a new file instead`,
        )
      if (known !== undefined) continue
      await pool.query(sql)
      await recordRun(pool, name, checksum)
      run.push(name)
    }
    return run
  } finally {
    await giveLeaseBack(pool)
  }
}

const ensureLease = (pool: Pool) =>
  change(
    pool,
    `INSERT IGNORE INTO migration_lease (id, until)
     VALUES (1, '2000-01-01')`,
  )
const takeLease = async (pool: Pool): Promise<boolean> =>
  (
    await change(
      pool,
      `UPDATE migration_lease
       SET until = TIMESTAMPADD(SECOND, ?, NOW(3))
       WHERE id = 1 AND until < NOW(3)`,
      [leaseSeconds],
    )
  ).affected === 1
const giveLeaseBack = (pool: Pool) =>
  change(
    pool,
    `UPDATE migration_lease
     SET until = '2000-01-01'
     WHERE id = 1`,
  )
/** Checksums of the migrations that have run, by file name. */
const checksumsOfRun = async (pool: Pool): Promise<Map<string, string>> =>
  new Map(
    (
      await rowsOf<{ name: string; checksum: string }>(
        pool,
        `SELECT name, checksum
         FROM migrations`,
      )
    ).map((row) => [row.name, row.checksum]),
  )
const recordRun = (pool: Pool, name: string, checksum: string) =>
  change(
    pool,
    `INSERT INTO migrations (name, checksum, run_at)
     VALUES (?, ?, NOW(3))`,
    [name, checksum],
  )
