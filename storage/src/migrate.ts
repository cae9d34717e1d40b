import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { createConnection, type Pool } from 'mysql2/promise'
import { tlsOptions, type DatabaseAddress } from './connect.ts'
import { change, databaseErrorCode, firstRow, rowsOf } from './transaction.ts'

/** Makes the schema if it is not there. */
export const createSchema = async ({
  host,
  port,
  user,
  password,
  database,
  tls,
}: DatabaseAddress): Promise<void> => {
  const connection = await createConnection({
    host,
    port,
    user,
    password,
    ...(tls ? { ssl: tlsOptions(tls) } : {}),
  })
  try {
    await connection.query(
      `CREATE DATABASE IF NOT EXISTS \`${database.replaceAll('`', '')}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin`,
    )
  } finally {
    await connection.end()
  }
}

const leaseSeconds = 120

/** What every table of ours is in: texts compare letter by letter, also what only differs in accents or case. */
const tableOptions = 'CHARACTER SET utf8mb4 COLLATE utf8mb4_nopad_bin'

interface Migration {
  name: string
  sql: string
  checksum: string
}
/** The numbered `.sql` files of a folder, in order, one DDL statement each. A table is made in the character set of ours, whatever the database's own. */
const migrationsIn = (folder: string): Migration[] =>
  readdirSync(folder)
    .filter((file) => file.endsWith('.sql'))
    .sort()
    .map((name) => {
      const text = readFileSync(join(folder, name), 'utf8')
      return {
        name,
        sql: /^\s*CREATE TABLE/i.test(text) ? `${text.trimEnd()} ${tableOptions}` : text,
        checksum: createHash('sha256').update(text).digest('hex'),
      }
    })

/** How a schema stands to the migrations that this program is made for. */
export interface SchemaState {
  /** Not run yet. */
  pending: string[]
  /** Run by a newer program. */
  unknown: string[]
  /** Changed since they ran. */
  changed: string[]
}
export const schemaState = async (pool: Pool, folder: string): Promise<SchemaState> => {
  const ran = (await hasMigrations(pool)) ? await checksumsOfRun(pool) : new Map<string, string>()
  const ours = migrationsIn(folder)
  const names = new Set(ours.map((one) => one.name))
  return {
    pending: ours.filter((one) => !ran.has(one.name)).map((one) => one.name),
    unknown: [...ran.keys()].filter((name) => !names.has(name)).sort(),
    changed: ours
      .filter((one) => ran.has(one.name) && ran.get(one.name) !== one.checksum)
      .map((one) => one.name),
  }
}
/** Why a program may not work on a schema, in words; null when it is its own. */
export const schemaProblem = ({ pending, unknown, changed }: SchemaState): string | null =>
  changed.length > 0
    ? `migration ${changed[0]} was changed after it had run; restore it and add a new file instead`
    : unknown.length > 0
      ? `the schema is a newer program’s: it has ${unknown.at(-1)}, which this one does not know; start the newer program`
      : pending.length > 0
        ? `the schema lacks ${pending.length === 1 ? pending[0] : `${pending.length} migrations, the first ${pending[0]}`}; run “npm run migrate” as a user who may change the schema`
        : null

/**
 * Runs the migrations that have not run yet, in order, each recorded with its checksum, under a lease row so that two
 * processes that start together run them once. Where none is to be run, nothing is written: a user without rights to the
 * schema can start.
 * @throws Error in words when a file that has run was changed since, or the user may not change the schema
 */
export const migrate = async (pool: Pool, folder: string): Promise<string[]> => {
  const state = await schemaState(pool, folder)
  if (state.changed.length > 0) throw new Error(schemaProblem(state) ?? '')
  if (state.pending.length === 0) return []
  try {
    return await runPending(pool, folder)
  } catch (cause) {
    if (
      ['ER_TABLEACCESS_DENIED_ERROR', 'ER_DBACCESS_DENIED_ERROR'].includes(
        databaseErrorCode(cause) ?? '',
      )
    )
      throw new Error(schemaProblem(state) ?? '', { cause })
    throw cause
  }
}

const runPending = async (pool: Pool, folder: string): Promise<string[]> => {
  await change(
    pool,
    `CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(200) NOT NULL PRIMARY KEY, checksum CHAR(64) NOT NULL, run_at DATETIME(3) NOT NULL) ${tableOptions}`,
  )
  await change(
    pool,
    `CREATE TABLE IF NOT EXISTS migration_lease (id TINYINT NOT NULL PRIMARY KEY, until DATETIME(3) NOT NULL) ${tableOptions}`,
  )
  await ensureLease(pool)
  while (!(await takeLease(pool))) await new Promise((resolve) => setTimeout(resolve, 200))
  try {
    const ran = await checksumsOfRun(pool)
    const run: string[] = []
    for (const { name, sql, checksum } of migrationsIn(folder)) {
      if (ran.has(name)) continue
      await pool.query(sql)
      await recordRun(pool, name, checksum)
      run.push(name)
    }
    return run
  } finally {
    await giveLeaseBack(pool)
  }
}

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
const hasMigrations = async (pool: Pool): Promise<boolean> =>
  (await firstRow(
    pool,
    `SELECT 1 AS yes
     FROM information_schema.tables
     WHERE table_schema = DATABASE() AND table_name = 'migrations'`,
  )) !== null

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
