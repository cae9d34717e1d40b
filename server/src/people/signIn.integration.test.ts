import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { hash } from '@node-rs/argon2'
import { testPassword as password } from '@wickerframe/contract/testing'
import { startPrivateSchema, type PrivateSchema } from '../testing/privateSchema.testing.ts'
import { changePassword, type Person } from './people.ts'
import {
  endSession,
  endSessionsOf,
  forgetOldDevices,
  isKnownDevice,
  personOfSession,
  removeEndedSessions,
} from './sessions.ts'
import { clientName, signIn, type SignInTry } from './signIn.ts'
import { forgetOldTries } from './signInTries.ts'

let schema: PrivateSchema
let person: Person

beforeAll(async () => {
  schema = await startPrivateSchema()
  person = await schema.person('designer')
})
afterAll(() => schema.stop())
beforeEach(async () => {
  for (const table of ['sessions', 'known_devices', 'sign_in_tries'])
    await schema.pool.query(`DELETE FROM ${table}`)
})

const attempt = (more: Partial<SignInTry> = {}) =>
  signIn(schema.pool, { email: person.email, password, client: '192.0.2.1', device: null, ...more })
const signedIn = async (more: Partial<SignInTry> = {}) => {
  const outcome = await attempt(more)
  if (outcome.state !== 'signed-in') throw new Error(outcome.state)
  return outcome
}
const statesOf = async (count: number, more: Partial<SignInTry>): Promise<string[]> => {
  const states: string[] = []
  for (let i = 0; i < count; i++) states.push((await attempt(more)).state)
  return states
}
const wrong = { password: 'guessed' }

describe('signing in', () => {
  it('begins a session of that very person, whatever the case of the address', async () => {
    const { token } = await signedIn({ email: `  ${person.email.toUpperCase()} ` })
    expect(await personOfSession(schema.pool, token)).toEqual(person)
  })
  it('keeps no token that somebody who reads the database could use', async () => {
    const { token, device } = await signedIn()
    const kept = JSON.stringify([
      await schema.rows(`SELECT *
        FROM sessions`),
      await schema.rows(`SELECT *
        FROM known_devices`),
    ])
    expect(kept).not.toContain(token)
    expect(kept).not.toContain(device)
    expect(kept.length).toBeGreaterThan(100)
  })
  it('says no more of an address that nobody has than of a wrong password', async () => {
    expect(await attempt({ email: 'nobody@kestrelsound.example' })).toEqual({ state: 'wrong' })
    expect(await attempt(wrong)).toEqual({ state: 'wrong' })
  })
  it('is held up after eight wrong tries at one account, also with the right password', async () => {
    expect(await statesOf(8, wrong)).toEqual(Array.from({ length: 8 }, () => 'wrong'))
    expect((await attempt()).state).toBe('throttled')
    await schema.pool.query(`UPDATE sign_in_tries
      SET since = since - INTERVAL 11 MINUTE`)
    expect((await attempt()).state).toBe('signed-in')
  })
  it('of tries at the same moment lets no more through than of tries in turn', async () => {
    const states = await Promise.all(
      Array.from({ length: 20 }, async () => (await attempt(wrong)).state),
    )
    expect(states.filter((state) => state === 'wrong')).toHaveLength(8)
  })
  it('gives a try back that was right', async () => {
    for (let i = 0; i < 12; i++) expect((await attempt()).state).toBe('signed-in')
  })
  it('is not held up for the owner on a device of theirs by a stranger’s guesses', async () => {
    const { device } = await signedIn()
    await statesOf(9, { ...wrong, client: '198.51.100.9' })
    expect((await attempt()).state).toBe('throttled')
    expect((await attempt({ device })).state).toBe('signed-in')
  })
  it('knows a device for its owner alone', async () => {
    const { device } = await signedIn()
    const other = await schema.person('reviewer')
    expect(await isKnownDevice(schema.pool, device, person.id)).toBe(true)
    expect(await isKnownDevice(schema.pool, device, other.id)).toBe(false)
  })
  // Networks of 64 bits are what households are given: RFC 6177; the forms of an address: RFC 4291, both from memory.
  it.each([
    ['192.0.2.7', '192.0.2.7'],
    ['::ffff:192.0.2.7', '192.0.2.7'],
    ['2001:db8:12:0:1:2:3:4', '2001:db8:12:0'],
    ['2001:DB8:0012::1', '2001:db8:12:0'],
    ['2001:db8::5:6:7:8', '2001:db8:0:0'],
    ['2001:db8:1:2:3::', '2001:db8:1:2'],
    ['::1', '0:0:0:0'],
    ['x'.repeat(300), 'x'.repeat(100)],
  ])('is counted with its household: %s as %s', (address, name) => {
    expect(clientName(address)).toBe(name)
  })
  it('keeps a device that was used lately', async () => {
    const { device } = await signedIn()
    await forgetOldDevices(schema.pool)
    expect(await isKnownDevice(schema.pool, device, person.id)).toBe(true)
  })
  it('forgets devices after half a year, and old tries', async () => {
    const { device } = await signedIn()
    await attempt(wrong)
    await schema.pool.query(`UPDATE known_devices
      SET used_at = used_at - INTERVAL 181 DAY`)
    await schema.pool.query(`UPDATE sign_in_tries
      SET since = since - INTERVAL 11 MINUTE`)
    expect(await isKnownDevice(schema.pool, device, person.id)).toBe(false)
    await forgetOldDevices(schema.pool)
    await forgetOldTries(schema.pool)
    expect(
      await schema.rows(`SELECT token_hash
        FROM known_devices`),
    ).toEqual([])
    expect(
      await schema.rows(`SELECT scope
        FROM sign_in_tries`),
    ).toEqual([])
  })
  it('leaves a line in the audit for each, without the password', async () => {
    await schema.pool.query('DELETE FROM audit')
    await attempt(wrong)
    await attempt()
    const lines = await schema.rows<{ what: string }>(`SELECT *
      FROM audit
      ORDER BY id`)
    expect(lines.map(({ what }) => what)).toEqual(['sign-in failed', 'signed in'])
    expect(JSON.stringify(lines)).not.toContain('guessed')
    expect(JSON.stringify(lines)).not.toContain(password)
  })
})

describe('a session', () => {
  const aged = (column: string, hours: number) =>
    schema.pool.query(
      `UPDATE sessions
       SET ${column} = ${column} - INTERVAL ? MINUTE`,
      [hours * 60],
    )
  it.each([
    ['ends twelve hours after it began', 'expires_at', 12.1],
    ['ends two hours after anything was asked', 'seen_at', 2.1],
  ])('%s', async (_, column, hours) => {
    const { token } = await signedIn()
    await aged(column, hours)
    expect(await personOfSession(schema.pool, token)).toBeNull()
  })
  it('goes on while something is asked in it', async () => {
    const { token } = await signedIn()
    await aged('seen_at', 1.9)
    expect(await personOfSession(schema.pool, token)).not.toBeNull()
    await aged('seen_at', 1.9)
    expect(await personOfSession(schema.pool, token)).not.toBeNull()
  })
  it('asked without marking does not go on for it', async () => {
    const { token } = await signedIn()
    await aged('seen_at', 1.9)
    await personOfSession(schema.pool, token, { marking: false })
    await aged('seen_at', 0.2)
    expect(await personOfSession(schema.pool, token)).toBeNull()
  })
  it('ends when it is ended, and no other does', async () => {
    const [mine, other] = [await signedIn(), await signedIn()]
    await endSession(schema.pool, mine.token)
    expect(await personOfSession(schema.pool, mine.token)).toBeNull()
    expect(await personOfSession(schema.pool, other.token)).not.toBeNull()
    await endSessionsOf(schema.pool, person.id)
    expect(await personOfSession(schema.pool, other.token)).toBeNull()
  })
  it('of before ends with another password', async () => {
    const own = await schema.person('administrator')
    const { token } = await signedIn({ email: own.email })
    await aged('began_at', 0.1)
    await changePassword(schema.pool, own.id, await hash('another-sea-2027'))
    expect(await personOfSession(schema.pool, token)).toBeNull()
    expect((await attempt({ email: own.email })).state).toBe('wrong')
    expect((await attempt({ email: own.email, password: 'another-sea-2027' })).state).toBe(
      'signed-in',
    )
  })
  it('that ended is removed', async () => {
    await signedIn()
    await aged('expires_at', 13)
    await removeEndedSessions(schema.pool)
    expect(
      await schema.rows(`SELECT token_hash
        FROM sessions`),
    ).toEqual([])
  })
})

// RFC 4291, section 2.2 (text representation) and RFC 6177 (a site has at most a /64 to one link), from memory.
describe('a client', () => {
  it.each([
    ['192.0.2.1', '192.0.2.1'],
    ['::ffff:192.0.2.1', '192.0.2.1'],
    ['2001:db8::1', '2001:db8:0:0'],
    ['2001:db8:0:0:ffff::9', '2001:db8:0:0'],
    ['2001:0DB8:00a0:7:1:2:3:4', '2001:db8:a0:7'],
    ['::1', '0:0:0:0'],
  ])('%s is counted as %s', (address, name) => {
    expect(clientName(address)).toBe(name)
  })
})
