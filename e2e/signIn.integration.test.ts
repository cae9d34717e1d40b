import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { AuditPage, Me } from '@wickerframe/contract'
import { demoPassword } from '@wickerframe/demo'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
const designerMail = 'designer@kestrelsound.example'
const administratorMail = 'administrator@kestrelsound.example'

beforeAll(async () => {
  bed = await startTestBed({ courses: 2 })
})
afterAll(() => bed.stop())

const signIn = (email: string, password: string, cookie = '', forwarded = '') =>
  fetch(`${bed.address}/api/sign-in`, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      'x-wickerframe': '1',
      cookie,
      ...(forwarded === '' ? {} : { 'x-forwarded-for': forwarded }),
    },
    body: JSON.stringify({ email, password }),
  })
/** The cookies that an answer sets, as they are sent back. */
const cookiesOf = (response: Response): string =>
  response.headers
    .getSetCookie()
    .map((cookie) => cookie.split(';')[0])
    .join('; ')
const forget = () => bed.pool.query('DELETE FROM sign_in_tries')
const as = (cookie: string): Pick<Client, 'get'> => ({
  get: async <T>(path: string) => {
    const response = await fetch(bed.address + path, { headers: { cookie } })
    return { status: response.status, body: (await response.json()) as T }
  },
})

describe('guessing a password', () => {
  it('of sixty tries at once no more than eight are looked at, also with the right one among them', async () => {
    await forget()
    const answers = await Promise.all(
      Array.from({ length: 60 }, (_, i) =>
        signIn(designerMail, i === 59 ? demoPassword : `guess ${i}`),
      ),
    )
    const states = answers.map((answer) => answer.status)
    expect(states.filter((state) => state !== 429).length).toBeLessThanOrEqual(9)
    const refused = answers.find((answer) => answer.status === 429)
    expect(Number(refused?.headers.get('retry-after'))).toBeGreaterThan(0)
    expect(await refused?.json()).toMatchObject({ detail: expect.stringContaining('minutes') })
    // And no more after them, whoever asks from wherever, unless it is a device the owner has used.
    expect((await signIn(designerMail, demoPassword)).status).toBe(429)
  })
  it('by somebody else does not lock the owner out on a device they have used', async () => {
    await forget()
    const device = cookiesOf(await signIn(administratorMail, demoPassword))
    for (let i = 0; i < 12; i++) await signIn(administratorMail, `guess ${i}`)
    expect((await signIn(administratorMail, demoPassword)).status).toBe(429)
    const again = await signIn(administratorMail, demoPassword, device)
    expect(again.status).toBe(200)
    // The device of one person is none of another's, and has a limit of its own.
    for (let i = 0; i < 9; i++) await signIn(administratorMail, `guess ${i}`, device)
    expect((await signIn(administratorMail, demoPassword, device)).status).toBe(429)
    await forget()
    for (let i = 0; i < 8; i++) await signIn(designerMail, `guess ${i}`, device)
    expect((await signIn(designerMail, demoPassword, device)).status).toBe(429)
  })
  it('over many accounts is limited by client; the word of a proxy that is not there is not taken', async () => {
    await forget()
    const states: number[] = []
    for (let i = 0; i < 50; i++)
      states.push((await signIn(`nobody${i}@kestrelsound.example`, 'x', '', `10.0.0.${i}`)).status)
    expect(states.filter((state) => state === 401).length).toBe(40)
    expect(states.slice(40)).toEqual(Array.from({ length: 10 }, () => 429))
  })
  it('that was right costs nothing: signing in twenty times in a row is let through', async () => {
    await forget()
    for (let i = 0; i < 20; i++) expect((await signIn(designerMail, demoPassword)).status).toBe(200)
  })
  it('leaves no rows behind once they are old', async () => {
    await bed.pool.query(`UPDATE sign_in_tries
      SET since = '2020-01-01'`)
    const { forgetOldTries } = await import('@wickerframe/server/people/signInTries')
    await forgetOldTries(bed.pool)
    const [rows] = await bed.pool.query(`SELECT COUNT(*) AS count
      FROM sign_in_tries`)
    expect(rows).toEqual([{ count: 0 }])
  })
})

describe('a session', () => {
  it('ends when it was idle too long, and when it is old, but goes on while it is used', async () => {
    await forget()
    const cookie = cookiesOf(await signIn(designerMail, demoPassword))
    const state = async () => (await as(cookie).get('/api/me')).status
    await bed.pool.query(`UPDATE sessions
      SET seen_at = TIMESTAMPADD(MINUTE, -100, NOW(3))`)
    expect(await state()).toBe(200)
    const [seen] = await bed.pool.query(
      `SELECT MAX(TIMESTAMPDIFF(SECOND, seen_at, NOW(3))) < 60 AS lately
       FROM sessions
       WHERE seen_at > TIMESTAMPADD(MINUTE, -90, NOW(3))`,
    )
    expect(seen).toEqual([{ lately: 1 }])
    await bed.pool.query(`UPDATE sessions
      SET seen_at = TIMESTAMPADD(MINUTE, -121, NOW(3))`)
    expect(await state()).toBe(401)
  })
  it('ends with all others when somebody signs out everywhere, or changes their password', async () => {
    await forget()
    const [one, two] = await Promise.all(
      [1, 2].map(async () => cookiesOf(await signIn(designerMail, demoPassword))),
    )
    const post = (path: string, body: object, cookie = '') =>
      fetch(bed.address + path, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'x-wickerframe': '1', cookie },
        body: JSON.stringify(body),
      })
    const state = async (cookie = '') => (await as(cookie).get('/api/me')).status
    await post('/api/sign-out', { everywhere: true }, one)
    expect([await state(one), await state(two)]).toEqual([401, 401])
    const [three, four] = await Promise.all(
      [1, 2].map(async () => cookiesOf(await signIn(designerMail, demoPassword))),
    )
    const password = 'a new one of twenty letters'
    expect((await post('/api/password', { was: 'not it', password }, three)).status).toBe(403)
    expect(
      (await post('/api/password', { was: demoPassword, password: 'short' }, three)).status,
    ).toBe(400)
    const changed = await post('/api/password', { was: demoPassword, password }, three)
    expect(changed.status).toBe(200)
    expect([await state(three), await state(four), await state(cookiesOf(changed))]).toEqual([
      401, 401, 200,
    ])
    expect((await signIn(designerMail, demoPassword)).status).toBe(401)
    expect((await signIn(designerMail, password)).status).toBe(200)
  })
  it('has cookies that scripts do not see, and no page of ours stands in a frame', async () => {
    await forget()
    const response = await signIn(administratorMail, demoPassword)
    for (const cookie of response.headers.getSetCookie())
      expect(cookie).toMatch(/HttpOnly.*SameSite=Strict|SameSite=Strict.*HttpOnly/)
    expect(response.headers.get('x-frame-options')).toBe('DENY')
    expect(response.headers.get('content-security-policy')).toContain("frame-ancestors 'none'")
  })
  it('on TLS has cookies that the browser holds to this host', async () => {
    const secure = await bed.startServerWith({ WICKERFRAME_SECURE_COOKIES: 'yes' })
    await forget()
    const response = await fetch(`${secure.address}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', 'x-wickerframe': '1' },
      body: JSON.stringify({ email: administratorMail, password: demoPassword }),
    })
    const cookies = response.headers.getSetCookie()
    expect(cookies).toHaveLength(2)
    for (const cookie of cookies) expect(cookie).toMatch(/^__Host-.*Path=\/;.*Secure/)
    expect(cookies.join()).not.toMatch(/Domain=/i)
    const me = await fetch(`${secure.address}/api/me`, { headers: { cookie: cookiesOf(response) } })
    expect(((await me.json()) as Me).email).toBe(administratorMail)
    // A cookie without the prefix, as a neighbouring host could set it, is nobody's.
    const plain = cookiesOf(response).replaceAll('__Host-', '')
    expect((await fetch(`${secure.address}/api/me`, { headers: { cookie: plain } })).status).toBe(
      401,
    )
  })
})

describe('what was done', () => {
  it('is read and narrowed by an administrator: sign-ins, good and failed, sign-outs, contributors', async () => {
    await forget()
    await signIn('stranger@kestrelsound.example', 'x')
    const cookie = cookiesOf(await signIn(administratorMail, demoPassword))
    const read = async (query: string) =>
      (await as(cookie).get<AuditPage>(`/api/audit?${query}`)).body
    const all = await read('')
    expect(all.kinds).toEqual(
      expect.arrayContaining([
        'sign-in failed',
        'signed in',
        'signed out everywhere',
        'password changed',
        'contributor let in',
      ]),
    )
    const failed = await read('what=sign-in+failed&who=stranger')
    expect(failed.entries[0]).toMatchObject({ who: 'stranger@kestrelsound.example' })
    expect(failed.entries.every((entry) => entry.what === 'sign-in failed')).toBe(true)
    expect((await read('who=%25')).entries).toEqual([])
    const next = await read(`before=${all.entries.at(-1)?.id}`)
    expect(next.entries.every((entry) => entry.id < (all.entries.at(-1)?.id ?? 0))).toBe(true)
    const text = JSON.stringify(all)
    expect(text).not.toContain(demoPassword)
  })
})
