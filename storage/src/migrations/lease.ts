import { randomUUID } from 'node:crypto'
import type { Pool } from 'mysql2/promise'
import { change } from '../transaction.ts'
import { tableOptions } from './files.ts'

/** Held by the one process that changes a schema. */
export interface MigrationLease {
  /** Sees to it that the lease is still held, and renews it. @throws Error when another process holds it */
  confirm: () => Promise<void>
  giveBack: () => Promise<void>
}

const askEveryMilliseconds = 200

/** Takes the lease as soon as nobody holds it, and renews it until it is given back: a statement may run longer than it. */
export const takeLease = async (pool: Pool, leaseSeconds: number): Promise<MigrationLease> => {
  const holder = randomUUID()
  await ensureTable(pool)
  await ensureRow(pool)
  while (!(await take(pool, holder, leaseSeconds)))
    await new Promise((resolve) => setTimeout(resolve, askEveryMilliseconds))
  const renewing = setInterval(
    // Where renewing fails, the next statement is not begun.
    () => void renew(pool, holder, leaseSeconds).catch(() => undefined),
    (leaseSeconds * 1000) / 3,
  )
  return {
    confirm: async () => {
      if (!(await renew(pool, holder, leaseSeconds)))
        throw new Error(
          'another process took over the migrations, as this one did not answer in time',
        )
    },
    giveBack: async () => {
      clearInterval(renewing)
      await giveBack(pool, holder)
    },
  }
}

const ensureTable = (pool: Pool) =>
  change(
    pool,
    `CREATE TABLE IF NOT EXISTS migration_lease (
       id TINYINT NOT NULL PRIMARY KEY,
       holder CHAR(36) NOT NULL,
       until DATETIME(3) NOT NULL
     ) ${tableOptions}`,
  )
const ensureRow = (pool: Pool) =>
  change(
    pool,
    `INSERT IGNORE INTO migration_lease (id, holder, until)
     VALUES (1, '', '2000-01-01')`,
  )
const take = async (pool: Pool, holder: string, leaseSeconds: number): Promise<boolean> =>
  (
    await change(
      pool,
      `UPDATE migration_lease
       SET holder = ?, until = TIMESTAMPADD(SECOND, ?, NOW(3))
       WHERE id = 1 AND until < NOW(3)`,
      [holder, leaseSeconds],
    )
  ).affected === 1
const renew = async (pool: Pool, holder: string, leaseSeconds: number): Promise<boolean> =>
  (
    await change(
      pool,
      `UPDATE migration_lease
       SET until = TIMESTAMPADD(SECOND, ?, NOW(3))
       WHERE id = 1 AND holder = ?`,
      [leaseSeconds, holder],
    )
  ).affected === 1
const giveBack = (pool: Pool, holder: string) =>
  change(
    pool,
    `UPDATE migration_lease
     SET until = '2000-01-01'
     WHERE id = 1 AND holder = ?`,
    [holder],
  )
