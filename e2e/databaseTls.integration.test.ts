import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { RowDataPacket } from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { connect } from '@wickerframe/storage'
import { bundle } from '@wickerframe/scripts/bundle'
import { startPrivateMariadb, type RunningMariadb } from '@wickerframe/scripts/privateMariadb'

let folder: string
let database: RunningMariadb
let program: string

const openssl = (...words: string[]) => {
  const { status, stderr } = spawnSync('openssl', words, { cwd: folder, encoding: 'utf8' })
  if (status !== 0) throw new Error(`openssl ${words[0]}: ${stderr}`)
}
const key = ['-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256', '-nodes']
/** An authority of our own: `<name>.pem` signs, and is what a client trusts. */
const makeAuthority = (name: string) =>
  openssl(
    'req',
    '-x509',
    ...key,
    '-keyout',
    `${name}.key`,
    '-out',
    `${name}.pem`,
    '-days',
    '2',
    '-subj',
    `/CN=${name}`,
  )

/** What the database shows, signed by `authority`, for one name. */
const makeCertificate = (name: string) => {
  openssl('req', ...key, '-keyout', 'server.key', '-out', 'server.csr', '-subj', `/CN=${name}`)
  writeFileSync(join(folder, 'names'), `subjectAltName=DNS:${name}`)
  openssl(
    'x509',
    '-req',
    '-in',
    'server.csr',
    '-CA',
    'authority.pem',
    '-CAkey',
    'authority.key',
    '-CAcreateserial',
    '-days',
    '2',
    '-extfile',
    'names',
    '-out',
    'server.pem',
  )
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'wf-tls-'))
  makeAuthority('authority')
  makeAuthority('stranger')
  makeCertificate('localhost')
  database = await startPrivateMariadb(join(folder, 'mariadb'), {
    quickAndUnsafe: true,
    certificate: { file: join(folder, 'server.pem'), keyFile: join(folder, 'server.key') },
  })
  program = await bundle('server/src/migrateSchema.ts')
})
afterAll(async () => {
  await database?.stop()
  rmSync(folder, { recursive: true, force: true })
})

/** Runs the program that makes the schema, by settings as an administrator gives them. */
const migrateWith = (settings: Readonly<Record<string, string>>) => {
  const { status, stdout, stderr } = spawnSync(process.execPath, [program], {
    env: {
      PATH: process.env['PATH'],
      NODE_ENV: 'test',
      DATABASE_HOST: 'localhost',
      DATABASE_PORT: String(database.port),
      DATABASE_USER: 'root',
      DATABASE_PASSWORD: database.password,
      DATABASE_TLS: 'yes',
      WICKERFRAME_DATABASE: 'wickerframe_tls',
      WICKERFRAME_PUBLIC_URL: 'http://127.0.0.1:4310',
      PLATFORM_URL: 'http://127.0.0.1:4320',
      PLATFORM_TOKEN: 'a-token-of-the-test',
      INSTITUTION_TIME_ZONE: 'America/Halifax',
      ...settings,
    },
    encoding: 'utf8',
    timeout: 60_000,
  })
  return { status, said: stdout + stderr }
}

const poolOver = (tls: { ca: string } | undefined) =>
  connect({
    host: 'localhost',
    port: database.port,
    user: 'root',
    password: database.password,
    database: 'wickerframe_tls',
    ...(tls ? { tls } : {}),
  })

/** The program ends in a sentence about what the administrator can do, and no stack. */
const isRefused = ({ status, said }: { status: number | null; said: string }, because: RegExp) => {
  expect(status).toBe(1)
  expect(said).toMatch(because)
  expect(said).not.toMatch(/\n\s+at /)
}

describe('a database that speaks TLS', () => {
  it('is worked with where its certificate is signed by whom the administrator trusts', async () => {
    const authority = join(folder, 'authority.pem')
    expect(migrateWith({ DATABASE_CA_FILE: authority })).toMatchObject({ status: 0 })
    const pool = poolOver({ ca: readFileSync(authority, 'utf8') })
    try {
      const [[row]] = await pool.query<RowDataPacket[]>(`SHOW SESSION STATUS LIKE 'Ssl_version'`)
      expect(row?.['Value']).toMatch(/^TLSv1\.[23]$/)
    } finally {
      await pool.end()
    }
  })

  it('is not sent a password when somebody else signed its certificate', () =>
    isRefused(
      migrateWith({ DATABASE_CA_FILE: join(folder, 'stranger.pem') }),
      /not known to be the right one: .*DATABASE_CA_FILE/,
    ))

  it('is not sent a password when nobody said who signs it', () =>
    isRefused(migrateWith({}), /not known to be the right one: .*DATABASE_CA_FILE/))

  it('is asked for by a name, since an address cannot be held against a certificate', () =>
    isRefused(migrateWith({ DATABASE_HOST: '127.0.0.1' }), /DATABASE_HOST: a name that/))

  it('is not sent a password under a name that its certificate does not have', async () => {
    makeCertificate('another.example')
    const plain = poolOver(undefined)
    try {
      await plain.query('FLUSH SSL')
    } finally {
      await plain.end()
    }
    isRefused(
      migrateWith({ DATABASE_CA_FILE: join(folder, 'authority.pem') }),
      /not known to be the right one: .*altnames.*DATABASE_HOST/,
    )
  })
})
