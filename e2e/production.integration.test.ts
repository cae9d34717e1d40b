import { spawn, spawnSync } from 'node:child_process'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import type { RowDataPacket } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { demoClockOffset, demoTimeZone, demoToday } from '@wickerframe/demo'
import { instantOf } from '@wickerframe/core'
import { connect } from '@wickerframe/storage'
import { bundle } from '@wickerframe/scripts/bundle'
import { root } from '@wickerframe/scripts/processes'
import { startTestBed, until, type TestBed } from './testBed.ts'

let bed: TestBed
let program: string

beforeAll(async () => {
  bed = await startTestBed({ courses: 2 })
  program = await bundle('server/src/main.ts')
})
afterAll(() => bed.stop())

const rows = async <T>(sql: string, values: unknown[] = []): Promise<T[]> =>
  (await bed.pool.query<RowDataPacket[]>(sql, values))[0] as T[]
const database = () => bed.environment['WICKERFRAME_DATABASE'] ?? ''

let checksum = ''
/** Makes a migration that ran look as if it had not, and back. */
const lastMigration = readdirSync(join(root, 'server/migrations')).toSorted().at(-1) ?? ''
const forget = async (name: string) => {
  const [row] = await rows<{ checksum: string }>(
    `SELECT checksum
     FROM migrations
     WHERE name = ?`,
    [name],
  )
  checksum = row?.checksum ?? ''
  await bed.pool.query(
    `DELETE FROM migrations
     WHERE name = ?`,
    [name],
  )
}
const remember = (name: string) =>
  bed.pool.query(
    `INSERT INTO migrations (name, checksum, run_at)
     VALUES (?, ?, NOW(3))`,
    [name, checksum],
  )

/** Starts the server, which is not expected to come up. @returns what it says, and how it ended */
const startFails = (environment: Readonly<Record<string, string>>) => {
  const ended = spawnSync(process.execPath, [program], {
    env: { PATH: process.env['PATH'], ...environment },
    encoding: 'utf8',
    timeout: 60_000,
  })
  return { code: ended.status, said: ended.stderr }
}

describe('a start with wrong settings', () => {
  it.each<[string, Record<string, string>, RegExp]>([
    ['nothing at all', { __none: '1' }, /DATABASE_PORT is not set[\s\S]*PLATFORM_URL is not set/],
    [
      'no public address',
      { WICKERFRAME_PUBLIC_URL: '' },
      /WICKERFRAME_PUBLIC_URL: the address at which/,
    ],
    ['a word for a port', { DATABASE_PORT: 'three' }, /DATABASE_PORT: /],
    [
      'a platform elsewhere without TLS',
      { PLATFORM_URL: 'http://platform.example/' },
      /PLATFORM_URL: https/,
    ],
    [
      'a zone that is none',
      { INSTITUTION_TIME_ZONE: 'Halifax' },
      /INSTITUTION_TIME_ZONE: .*America\/Halifax/,
    ],
    [
      'a database that is not there',
      { DATABASE_PORT: '1' },
      /No database answers at 127\.0\.0\.1, port 1/,
    ],
    ['a password that is not right', { DATABASE_PASSWORD: 'x' }, /does not let root in/],
    [
      'TLS to a database that has none',
      { DATABASE_HOST: 'localhost', DATABASE_TLS: 'yes' },
      /offers no TLS|not known to be the right one/,
    ],
    [
      'a certificate file that is not there',
      { DATABASE_HOST: 'localhost', DATABASE_TLS: 'yes', DATABASE_CA_FILE: '/no/such' },
      /DATABASE_CA_FILE/,
    ],
  ])('is a sentence without a stack: %s', (_, more, says) => {
    const { code, said } = startFails(
      more['__none'] ? {} : { ...bed.environment, WICKERFRAME_PORT: '0', ...more },
    )
    expect(code).toBe(1)
    expect(said).toMatch(says)
    expect(said).not.toMatch(/\n\s+at |Error:/)
  })
})

describe('a start in production', () => {
  /** Processes that a process started, with what they run. */
  const childrenOf = (pid: number): { pid: number; runs: string }[] =>
    readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8')
      .trim()
      .split(' ')
      .filter((pid) => pid !== '')
      .map((pid) => ({ pid: Number(pid), runs: readFileSync(`/proc/${pid}/cmdline`, 'utf8') }))
  it('starts again what dies, and the others live', async () => {
    await bundle('server/src/worker.ts')
    const child = spawn(process.execPath, [join(root, 'scripts/start.mjs')], {
      env: { PATH: process.env['PATH'], ...bed.environment, WICKERFRAME_PORT: '0' },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let said = ''
    child.stdout.on('data', (text: Buffer) => (said += text.toString()))
    child.stderr.on('data', (text: Buffer) => (said += text.toString()))
    const saying = (pattern: RegExp) =>
      until(
        () => Promise.resolve(said),
        (text) => pattern.test(text),
      )
    const part = (name: string) =>
      childrenOf(child.pid ?? 0).find(({ runs }) => runs.includes(`dist/${name}.mjs`))?.pid ?? 0
    try {
      await saying(
        /server: .*listening[\s\S]*worker: .*working|worker: .*working[\s\S]*server: .*listening/,
      )
      const [server, worker] = [part('main'), part('worker')]
      process.kill(worker, 'SIGKILL')
      await saying(/the worker ended \(SIGKILL\); it is started again[\s\S]*worker: .*working/)
      expect(part('main')).toBe(server)
      expect(part('worker')).not.toBe(worker)
    } finally {
      child.kill('SIGTERM')
      await new Promise((resolve) => child.once('exit', resolve))
    }
    expect(child.exitCode).toBe(0)
  })
})

describe('the database', () => {
  it('is in one character set, also where it was made beforehand in another', async () => {
    const name = `${database()}_latin`
    await bed.pool.query(
      `CREATE DATABASE \`${name}\` CHARACTER SET latin1 COLLATE latin1_swedish_ci`,
    )
    try {
      const further = await bed.startServerWith({ WICKERFRAME_DATABASE: name })
      await further.process.stop()
      const tables = await rows<{ collation: string; count: number }>(
        `SELECT table_collation AS collation, COUNT(*) AS count
         FROM information_schema.tables
         WHERE table_schema = ?
         GROUP BY table_collation`,
        [name],
      )
      expect(tables.map((table) => table.collation)).toEqual(['utf8mb4_nopad_bin'])
      const columns = await rows<{ collation: string }>(
        `SELECT DISTINCT collation_name AS collation
         FROM information_schema.columns
         WHERE table_schema = ? AND collation_name IS NOT NULL`,
        [name],
      )
      expect(
        columns
          .map((column) => column.collation)
          .filter((collation) => !collation.startsWith('utf8mb4')),
      ).toEqual([])
      await bed.pool.query(`ALTER TABLE \`${name}\`.audit CONVERT TO CHARACTER SET latin1`)
      const { code, said } = startFails({
        ...bed.environment,
        WICKERFRAME_DATABASE: name,
        WICKERFRAME_PORT: '0',
      })
      expect([code, said]).toEqual([1, expect.stringContaining('table audit is in latin1')])
    } finally {
      await bed.pool.query(`DROP DATABASE \`${name}\``)
    }
  })
  it('can be worked with by a user who may not change the schema, once it is as it should be', async () => {
    const user = `worker_${Date.now()}`
    await bed.pool.query(`CREATE USER '${user}'@'%' IDENTIFIED BY 'p'`)
    try {
      await bed.pool.query(
        `GRANT SELECT, INSERT, UPDATE, DELETE ON \`${database()}\`.* TO '${user}'@'%'`,
      )
      const more = { DATABASE_USER: user, DATABASE_PASSWORD: 'p' }
      const further = await bed.startServerWith(more)
      expect((await fetch(`${further.address}/api/health`)).status).toBe(200)
      await further.process.stop()
      await forget(lastMigration)
      const { code, said } = startFails({ ...bed.environment, ...more, WICKERFRAME_PORT: '0' })
      expect([code, said]).toEqual([1, expect.stringContaining('npm run migrate')])
    } finally {
      await remember(lastMigration)
      await bed.pool.query('DROP USER ?', [user])
    }
  })
  it('of a newer program is worked with by no older one', async () => {
    await bed.pool.query(
      `INSERT INTO migrations (name, checksum, run_at)
       VALUES ('9999-later.sql', REPEAT('0', 64), NOW(3))`,
    )
    try {
      const { code, said } = startFails({ ...bed.environment, WICKERFRAME_PORT: '0' })
      expect([code, said]).toEqual([1, expect.stringContaining('9999-later.sql')])
    } finally {
      await bed.pool.query(`DELETE FROM migrations
        WHERE name = '9999-later.sql'`)
    }
  })
})

/** Columns that the machine's clock is written to: nobody is shown them. */
const machine = new Set([
  'check_results.told_at',
  'courses.held_anew_at',
  'courses.bodies_known_at',
  'known_devices.used_at',
  'migration_lease.until',
  'migrations.run_at',
  'page_bodies.saved_at',
  'people.password_changed_at',
  'sessions.began_at',
  'sessions.expires_at',
  'sessions.seen_at',
  'sign_in_tries.since',
  'tasks.lease_until',
  'tasks.next_at',
  'tasks.turn',
])

describe('time', () => {
  it('of every stamp that is shown is the institution’s; nothing says November in September', async () => {
    const designer = await bed.as('designer@kestrelsound.example')
    await designer.post('/api/courses/1/check', {})
    const columns = await rows<{ name: string; column: string }>(
      `SELECT table_name AS name, column_name AS \`column\`
       FROM information_schema.columns
       WHERE table_schema = ? AND data_type IN ('datetime', 'timestamp')`,
      [database()],
    )
    expect(columns.length).toBeGreaterThan(30)
    const last = instantOf(demoToday, '23:00', demoTimeZone)
    let stamps = 0
    for (const { name, column } of columns) {
      const [found] = await rows<{ first: string | null; last: string | null }>(
        `SELECT MIN(\`${column}\`) AS first, MAX(\`${column}\`) AS last
         FROM \`${name}\``,
      )
      if (!found?.last || machine.has(`${name}.${column}`)) continue
      stamps += 1
      const latest = `${found.last.replace(' ', 'T')}Z`
      expect(latest <= last ? '' : `${name}.${column}: ${latest}`).toBe('')
    }
    expect(stamps).toBeGreaterThan(8)
    expect(demoClockOffset(Date.now())).not.toBe(0)
  })
  it('of a session is UTC, whatever the server’s own zone is: sessions and leases hold', async () => {
    await bed.pool.query("SET GLOBAL time_zone = '+05:30'")
    try {
      const pool = connect({
        host: '127.0.0.1',
        port: Number(bed.environment['DATABASE_PORT']),
        user: 'root',
        password: bed.environment['DATABASE_PASSWORD'] ?? '',
        database: database(),
      })
      const [now] = await pool.query<RowDataPacket[]>(
        'SELECT NOW(3) AS now, @@session.time_zone AS zone',
      )
      await pool.end()
      expect(now[0]?.['zone']).toBe('+00:00')
      expect(
        Math.abs(Date.parse(`${String(now[0]?.['now']).replace(' ', 'T')}Z`) - Date.now()),
      ).toBeLessThan(5000)
      const further = await bed.startServerWith({})
      const designer = await bed.as('designer@kestrelsound.example', further.address)
      expect((await designer.get('/api/me')).status).toBe(200)
      await further.process.stop()
    } finally {
      await bed.pool.query("SET GLOBAL time_zone = 'SYSTEM'")
    }
  })
})
