import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Pool, RowDataPacket } from 'mysql2/promise'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { startPrivateMariadb, type RunningMariadb } from '@wickerframe/scripts/privateMariadb'
import { connect } from '../connect.ts'
import { createSchema } from '../createSchema.ts'
import { migrationsIn } from './files.ts'
import { migrate } from './migrate.ts'

let home: string
let database: RunningMariadb
let folder: string
let pool: Pool
let schema = 0

const addressOf = (name: string) => ({
  host: '127.0.0.1',
  port: database.port,
  user: 'root',
  password: database.password,
  database: name,
})
const schemaName = () => `migrating_${schema}`
const write = (name: string, ...statements: string[]) =>
  writeFileSync(join(folder, name), statements.map((statement) => `${statement};\n`).join(''))
const rows = async <T>(sql: string): Promise<T[]> =>
  (await pool.query<RowDataPacket[]>(sql))[0] as T[]
const recorded = async () =>
  (
    await rows<{ name: string }>(`SELECT name
      FROM migrations
      ORDER BY name`)
  ).map(({ name }) => name)
const countedTimes = async () =>
  (
    await rows<{ times: number }>(`SELECT COUNT(*) AS times
      FROM counted`)
  )[0]?.times

const makeCounted =
  'CREATE TABLE IF NOT EXISTS counted (id INT NOT NULL AUTO_INCREMENT PRIMARY KEY)'
const count = `INSERT INTO counted ()
  VALUES ()`

beforeAll(async () => {
  home = mkdtempSync(join(tmpdir(), 'wf-migrate-'))
  database = await startPrivateMariadb(join(home, 'mariadb'), { quickAndUnsafe: true })
})
afterAll(async () => {
  await database?.stop()
  rmSync(home, { recursive: true, force: true })
})
beforeEach(async () => {
  folder = mkdtempSync(join(home, 'migrations-'))
  schema += 1
  await createSchema(addressOf(schemaName()))
  pool = connect(addressOf(schemaName()))
})
afterEach(() => pool.end())

it('each file is run once, in the order of their names, and recorded', async () => {
  write('0002-second.sql', count)
  write('0001-first.sql', '-- What it is for.\n' + makeCounted, count)
  expect(await migrate(pool, folder)).toEqual(['0001-first.sql', '0002-second.sql'])
  expect(await migrate(pool, folder)).toEqual([])
  expect([await recorded(), await countedTimes()]).toEqual([
    ['0001-first.sql', '0002-second.sql'],
    2,
  ])
})

it('two processes that start together run them once', async () => {
  write('0001-first.sql', makeCounted, 'DO SLEEP(0.3)', count)
  const other = connect(addressOf(schemaName()))
  try {
    const ran = await Promise.all([migrate(pool, folder), migrate(other, folder)])
    expect(ran.flat()).toEqual(['0001-first.sql'])
    expect(await countedTimes()).toBe(1)
  } finally {
    await other.end()
  }
})

it('a statement may run longer than the lease: nobody else begins meanwhile', async () => {
  // A lease of several seconds: on a slow disk a renewal may take more than one.
  write('0001-first.sql', makeCounted, 'DO SLEEP(7)', count)
  const other = connect(addressOf(schemaName()))
  try {
    const ran = await Promise.all([migrate(pool, folder, 5), migrate(other, folder, 5)])
    expect(ran.flat()).toEqual(['0001-first.sql'])
    expect(await countedTimes()).toBe(1)
  } finally {
    await other.end()
  }
})

it('a process whose lease was taken over begins no further statement', async () => {
  write('0001-first.sql', makeCounted, 'DO SLEEP(1)', count)
  const running = migrate(pool, folder)
  running.catch(() => undefined)
  const stranger = `UPDATE migration_lease
    SET holder = 'stranger'
    WHERE holder <> ''`
  await vi.waitFor(
    async () => {
      const [done] = await pool.query(stranger)
      expect(done).toMatchObject({ affectedRows: 1 })
    },
    { timeout: 20_000, interval: 20 },
  )
  await expect(running).rejects.toThrow('another process took over the migrations')
  expect(await recorded()).toEqual([])
})

describe('a migration that was cut short', () => {
  it('by a statement that fails, is run from its beginning once that is mended', async () => {
    write('0001-first.sql', makeCounted, 'NOT SQL AT ALL')
    await expect(migrate(pool, folder)).rejects.toThrow()
    expect(await recorded()).toEqual([])
    write('0001-first.sql', makeCounted, count)
    expect(await migrate(pool, folder)).toEqual(['0001-first.sql'])
  })
  it('by the death of its process after its last statement, is run again and recorded', async () => {
    write('0001-first.sql', makeCounted, 'DO SLEEP(60)')
    const program = join(import.meta.dirname, 'dyingMigrator.testing.ts')
    const dying = spawn(
      process.execPath,
      ['--import', 'tsx', program, JSON.stringify(addressOf(schemaName())), folder],
      { stdio: 'ignore' },
    )
    await vi.waitFor(async () => expect(await rows(`SHOW TABLES LIKE 'counted'`)).toHaveLength(1), {
      timeout: 60_000,
      interval: 50,
    })
    dying.kill('SIGKILL')
    await once(dying, 'exit')
    expect(await recorded()).toEqual([])
    write('0001-first.sql', makeCounted)
    expect(await migrate(pool, folder, 1)).toEqual(['0001-first.sql'])
    expect(await recorded()).toEqual(['0001-first.sql'])
  })
})

it('a file that was changed after it had run stops the start, and nothing is run', async () => {
  write('0001-first.sql', makeCounted)
  await migrate(pool, folder)
  write('0001-first.sql', makeCounted, count)
  write('0002-second.sql', count)
  await expect(migrate(pool, folder)).rejects.toThrow('0001-first.sql was changed')
  expect(await countedTimes()).toBe(0)
})

describe.each([
  ['the server', '../../../server/migrations'],
  ['the practice platform', '../../../platform/migrations'],
])('the migrations of %s', (_, path) => {
  it('can each be run from its beginning again, and nothing is different then', async () => {
    const ours = join(import.meta.dirname, path)
    const tablesOf = async (of: Pool) => {
      const all = async <T>(sql: string) => (await of.query<RowDataPacket[]>(sql))[0] as T[]
      const names = (await all<Record<string, string>>('SHOW TABLES'))
        .flatMap((row) => Object.values(row))
        .filter((name) => !name.startsWith('migration'))
      const made = await Promise.all(names.map((name) => all(`SHOW CREATE TABLE ${name}`)))
      const triggers = await all<Record<string, unknown>>('SHOW TRIGGERS')
      return [...made, triggers.map(({ Trigger, Statement }) => [Trigger, Statement])]
    }
    await migrate(pool, ours)
    const once = await tablesOf(pool)
    const twice = addressOf(`${schemaName()}_twice`)
    await createSchema(twice)
    const again = connect(twice, 2)
    for (const { statements } of migrationsIn(ours))
      for (const statement of [...statements, ...statements]) await again.query(statement)
    expect(await tablesOf(again)).toEqual(once)
    expect(once.length).toBeGreaterThan(5)
    await again.end()
  })
})
