import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { clockOf, databaseAddress, readSettings, WrongSettings } from './settings.ts'

const least = {
  WICKERFRAME_PUBLIC_URL: 'https://templates.kestrelsound.example',
  DATABASE_PORT: '3306',
  PLATFORM_URL: 'https://courses.kestrelsound.example/connector',
  PLATFORM_TOKEN: 'sixteen-letters-',
}
const refusalOf = (more: NodeJS.ProcessEnv): string => {
  try {
    readSettings({ ...least, ...more })
  } catch (cause) {
    if (cause instanceof WrongSettings) return cause.message
    throw cause
  }
  return 'taken'
}

describe('settings that cannot be started with', () => {
  it.each<[NodeJS.ProcessEnv, RegExp]>([
    [{ WICKERFRAME_PUBLIC_URL: undefined }, /WICKERFRAME_PUBLIC_URL is not set: the address at/],
    [{ WICKERFRAME_PUBLIC_URL: 'ftp://x.example' }, /WICKERFRAME_PUBLIC_URL: /],
    [{ DATABASE_PORT: undefined }, /DATABASE_PORT is not set: the port at which MariaDB listens/],
    [{ DATABASE_PORT: '70000' }, /DATABASE_PORT: /],
    [{ WICKERFRAME_DATABASE: 'a b; DROP' }, /WICKERFRAME_DATABASE: letters, digits, - and _/],
    [{ PLATFORM_URL: 'http://courses.example' }, /PLATFORM_URL: https, unless/],
    [{ PLATFORM_TOKEN: 'short' }, /PLATFORM_TOKEN: at least 16 characters/],
    [{ PLATFORM_TOKEN: undefined }, /PLATFORM_TOKEN is not set: the token/],
    [{ INSTITUTION_TIME_ZONE: 'Mars/Olympus' }, /INSTITUTION_TIME_ZONE: /],
    [{ WORKER_LEASE_SECONDS: '0' }, /WORKER_LEASE_SECONDS: /],
    [{ WORKER_CONCURRENCY: 'many' }, /WORKER_CONCURRENCY: /],
    [{ DATABASE_TLS: 'perhaps' }, /DATABASE_TLS: yes or no/],
    [{ DATABASE_HOST: '10.0.0.7' }, /DATABASE_HOST: a name that the database’s certificate has/],
  ])('%j', (more, said) => {
    expect(refusalOf(more)).toMatch(said)
  })
  it('are all named at once, not one after the other', () => {
    expect(
      refusalOf({ DATABASE_PORT: undefined, PLATFORM_TOKEN: 'short' }).split('\n'),
    ).toHaveLength(3)
  })
  it('never repeat a secret', () => {
    expect(refusalOf({ PLATFORM_TOKEN: 'hunter2' })).not.toContain('hunter2')
  })
})

describe('settings', () => {
  it.each<[NodeJS.ProcessEnv, boolean]>([
    [{}, true],
    [{ WICKERFRAME_PUBLIC_URL: 'http://127.0.0.1:4310' }, false],
    [{ WICKERFRAME_PUBLIC_URL: 'http://localhost:4310' }, false],
    [{ WICKERFRAME_PUBLIC_URL: 'http://127.0.0.1.example.com' }, true],
    [{ WICKERFRAME_SECURE_COOKIES: 'no' }, false],
  ])('%j keep cookies to TLS: %s', (more, secure) => {
    expect(readSettings({ ...least, ...more }).secureCookies).toBe(secure)
  })
  it.each<[NodeJS.ProcessEnv, boolean]>([
    [{}, false],
    [{ DATABASE_HOST: 'db.kestrelsound.example' }, true],
    [{ DATABASE_HOST: '10.0.0.7', DATABASE_TLS: 'no' }, false],
    [{ DATABASE_HOST: '::1' }, false],
  ])('%j speak TLS to the database: %s', (more, tls) => {
    expect(databaseAddress(readSettings({ ...least, ...more })).tls !== undefined).toBe(tls)
  })
  it('tell today where the institution is, not where the server stands', () => {
    const clock = clockOf(readSettings({ ...least, INSTITUTION_TIME_ZONE: 'Pacific/Kiritimati' }))
    const utc = clockOf(readSettings(least))
    expect([0, 1]).toContain((Date.parse(clock.today()) - Date.parse(utc.today())) / 86_400_000)
  })
})

describe('the certificates of the database', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wf-settings-'))
  afterAll(() => rmSync(folder, { recursive: true }))
  const addressWith = (file: string) =>
    databaseAddress(readSettings({ ...least, DATABASE_HOST: 'db.example', DATABASE_CA_FILE: file }))
  it('are read from their file', () => {
    const file = join(folder, 'ca.pem')
    writeFileSync(file, 'PEM')
    expect(addressWith(file).tls).toEqual({ ca: 'PEM' })
  })
  it('that are not there are named, and nothing is begun without them', () => {
    expect(() => addressWith(join(folder, 'none.pem'))).toThrow(/DATABASE_CA_FILE: the file/)
  })
})
