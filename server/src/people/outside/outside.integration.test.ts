import { createServer, type IncomingMessage, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { exportJWK, generateKeyPair, SignJWT, type JWTPayload } from 'jose'
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { testPassword } from '@wickerframe/contract/testing'
import { startIdentityProvider, type KnownPerson } from '@wickerframe/identity/provider'
import { startPrivateCollege, type PrivateCollege } from '../../testing/privateCollege.testing.ts'
import { outsideProvider, type OutsideSettings } from './provider.ts'

let college: PrivateCollege
const secret = 'a secret of the provider and ours'
const settingsFor = (issuer: string): OutsideSettings => ({
  issuer,
  clientId: 'wickerframe',
  clientSecret: secret,
  name: 'Kestrel Sound',
  rolesClaim: 'groups',
  roleOf: { 'course-design': 'designer', faculty: 'instructor', registry: 'administrator' },
  trustEmail: false,
})

beforeAll(async () => {
  college = await startPrivateCollege()
})
afterAll(() => college.stop())
beforeEach(async () => {
  for (const table of ['people', 'audit', 'sign_in_tries'])
    await college.pool.query(`DELETE FROM ${table}`)
})

/** A browser: it keeps cookies by host and goes where it is sent, one step at a time. */
const browser = () => {
  const jar = new Map<string, Map<string, string>>()
  const go = async (address: string, how: RequestInit = {}): Promise<Response> => {
    const { host } = new URL(address)
    const cookies = jar.get(host) ?? new Map<string, string>()
    jar.set(host, cookies)
    const response = await fetch(address, {
      ...how,
      redirect: 'manual',
      headers: {
        cookie: [...cookies].map(([name, value]) => `${name}=${value}`).join('; '),
        ...(how.headers as Record<string, string>),
      },
    })
    for (const cookie of response.headers.getSetCookie()) {
      const [pair = ''] = cookie.split(';')
      const [name = '', value = ''] = pair.split('=')
      if (value === '') cookies.delete(name)
      else cookies.set(name, value)
    }
    return response
  }
  const sentTo = (response: Response, from: string): string =>
    new URL(response.headers.get('location') ?? '/nowhere', from).href
  return { go, sentTo, cookies: () => jar.get(new URL(college.address).host) ?? new Map() }
}
type Browser = ReturnType<typeof browser>

/** Signs in elsewhere as far as the address that the browser is sent back to. */
const pickedAt = async ({ go, sentTo }: Browser, email: string): Promise<string> => {
  const begin = `${college.address}/api/sign-in/outside`
  const asked = sentTo(await go(begin), begin)
  if (!asked.includes('/auth')) return asked
  const pick = sentTo(await go(asked), asked)
  // Who is signed in there already is not asked again.
  if (pick.includes('/back?')) return pick
  const picked = await go(pick, {
    method: 'POST',
    body: new URLSearchParams({ who: email }),
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
  })
  const resumed = sentTo(picked, pick)
  // The address that was given out is the public one; the tests reach the application elsewhere.
  return sentTo(await go(resumed), resumed)
}
const here = (address: string): string =>
  address.replace('https://wickerframe.example', college.address)
const signIn = async (email: string, how = browser()) => {
  const back = here(await pickedAt(how, email))
  const response = await how.go(back)
  return { back, how, goesOn: how.sentTo(response, college.address).replace(college.address, '') }
}
const me = async ({ go }: Browser) => {
  const response = await go(`${college.address}/api/me`)
  return { status: response.status, body: await response.json() }
}

describe('the institution’s own sign-in', () => {
  const people: KnownPerson[] = [
    { email: 'designer@kestrelsound.example', name: 'Quill', groups: [] },
    { email: 'maud@kestrelsound.example', name: 'Maud Ferreira', groups: ['faculty', 'choir'] },
    { email: 'nobody@kestrelsound.example', name: 'Nobody', groups: ['choir'] },
    {
      email: 'claims@elsewhere.example',
      name: 'Unverified',
      groups: ['registry'],
      emailVerified: false,
    },
  ]
  let stop: () => Promise<void>
  beforeAll(async () => {
    const provider = await startIdentityProvider({
      port: 0,
      clientId: 'wickerframe',
      clientSecret: secret,
      redirectUri: 'https://wickerframe.example/api/sign-in/outside/back',
      people,
    })
    stop = provider.stop
    college.outside(outsideProvider(settingsFor(provider.issuer)))
  })
  afterAll(() => stop())

  it('lets in whom an administrator knows by that address, with the roles they have here', async () => {
    const designer = await college.person('designer')
    const { how, goesOn } = await signIn(designer.email)
    expect(goesOn).toBe('/')
    expect((await me(how)).body).toMatchObject({ email: designer.email, roles: ['designer'] })
    expect([...how.cookies().keys()]).toEqual(['wickerframe-session'])
  })
  it('lets in somebody new whose claims give a role, and takes it when they do no more', async () => {
    const { how } = await signIn('maud@kestrelsound.example')
    expect((await me(how)).body).toMatchObject({ name: 'Maud Ferreira', roles: ['instructor'] })
    const maud = people.find(({ name }) => name === 'Maud Ferreira')
    if (!maud) throw new Error('Maud is there')
    maud.groups = ['course-design']
    await signIn('maud@kestrelsound.example', how)
    expect((await me(how)).body.roles).toEqual(['designer'])
    maud.groups = ['choir']
    expect((await signIn('maud@kestrelsound.example')).goesOn).toBe('/?outside=no-account')
    maud.groups = ['faculty', 'choir']
  })
  it('keeps what an administrator gave beside what claims give', async () => {
    const designer = await college.person('designer', 'maud')
    const { how } = await signIn(designer.email)
    expect((await me(how)).body.roles).toEqual(['designer', 'instructor'])
  })
  it('lets nobody in who has no account and no role by claims, or whose address nobody vouches for', async () => {
    for (const email of ['nobody@kestrelsound.example', 'claims@elsewhere.example']) {
      const { how, goesOn } = await signIn(email)
      expect([email, goesOn, (await me(how)).status]).toEqual([email, '/?outside=no-account', 401])
    }
    await college.person('administrator', 'claims')
    expect((await signIn('claims@elsewhere.example')).goesOn).toBe('/?outside=no-account')
  })
  it('lets nobody in who is deactivated', async () => {
    const designer = await college.person('designer')
    await college.pool.query(`UPDATE people
      SET deactivated_at = NOW(3)`)
    expect((await signIn(designer.email)).goesOn).toBe('/?outside=deactivated')
  })
  it('says so when somebody does not go on there', async () => {
    const { how, goesOn } = await signIn('none of them')
    expect([goesOn, (await me(how)).status]).toEqual(['/?outside=refused-there', 401])
  })
  it('signs nobody in by an address that was begun in another browser, or was used', async () => {
    await college.person('designer')
    const mine = browser()
    const back = here(await pickedAt(mine, 'designer@kestrelsound.example'))
    const victim = browser()
    const lured = await victim.go(back)
    expect(victim.sentTo(lured, college.address)).toMatch(/\?outside=over$/)
    await pickedAt(victim, 'designer@kestrelsound.example')
    const mixed = await victim.go(back)
    expect(victim.sentTo(mixed, college.address)).toMatch(/\?outside=wrong-answer$/)
    expect((await me(victim)).status).toBe(401)
    await mine.go(back)
    expect((await me(mine)).status).toBe(200)
    const again = await mine.go(back)
    expect(mine.sentTo(again, college.address)).toMatch(/\?outside=over$/)
  })
  it('stands beside passwords, or alone', async () => {
    const designer = await college.person('designer')
    const ways = async () => (await college.stranger.get('/api/sign-in/ways')).body
    expect(await ways()).toEqual({ local: true, outside: 'Kestrel Sound' })
    college.localAccounts(false)
    expect(await ways()).toEqual({ local: false, outside: 'Kestrel Sound' })
    const withPassword = { email: designer.email, password: testPassword }
    expect((await college.stranger.post('/api/sign-in', withPassword)).status).toBe(403)
    college.localAccounts(true)
    expect((await college.stranger.post('/api/sign-in', withPassword)).status).toBe(200)
  })
})

// What an ID token must hold is OpenID Connect Core 1.0, 3.1.3.7 (from memory): issuer, audience, nonce, time, signature.
describe('a provider that lies', () => {
  let server: Server
  let issuer: string
  let asked: URLSearchParams
  /** What is wrong with the next answer. */
  let lie: {
    claims?: JWTPayload
    strangeKey?: boolean
    raw?: string
    status?: number
    tokenAway?: boolean
  } = {}
  const designer = { email: 'designer@kestrelsound.example', email_verified: true }

  const bodyOf = async (request: IncomingMessage): Promise<string> => {
    let text = ''
    for await (const chunk of request) text += String(chunk)
    return text
  }
  beforeAll(async () => {
    const [own, strange] = [await generateKeyPair('RS256'), await generateKeyPair('RS256')]
    const jwk = { ...(await exportJWK(own.publicKey)), kid: 'own', alg: 'RS256', use: 'sig' }
    server = createServer((request, response) => {
      const answer = (body: unknown, status = 200): void => {
        response.writeHead(status, { 'content-type': 'application/json' })
        response.end(typeof body === 'string' ? body : JSON.stringify(body))
      }
      const { pathname } = new URL(request.url ?? '/', issuer)
      if (pathname === '/.well-known/openid-configuration')
        return answer({
          issuer,
          authorization_endpoint: `${issuer}/auth`,
          token_endpoint: `${issuer}/token`,
          jwks_uri: `${issuer}/jwks`,
          response_types_supported: ['code'],
          id_token_signing_alg_values_supported: ['RS256'],
        })
      if (pathname === '/jwks') return answer({ keys: [jwk] })
      if (lie.tokenAway) return void request.socket.destroy()
      if (lie.raw !== undefined) return answer(lie.raw, lie.status)
      void bodyOf(request).then(async () => {
        const now = Math.floor(Date.now() / 1000)
        const token = await new SignJWT({
          iss: issuer,
          aud: 'wickerframe',
          sub: 'somebody',
          nonce: asked.get('nonce') ?? '',
          iat: now,
          exp: now + 300,
          ...designer,
          ...lie.claims,
        })
          .setProtectedHeader({ alg: 'RS256', kid: 'own' })
          .sign(lie.strangeKey ? strange.privateKey : own.privateKey)
        answer({ access_token: 'x', token_type: 'Bearer', id_token: token })
      })
    })
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    issuer = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  })
  beforeEach(async () => {
    lie = {}
    college.outside(outsideProvider(settingsFor(issuer)))
    await college.person('designer')
  })
  afterAll(() => {
    server.closeAllConnections()
    server.close()
  })

  const attempt = async () => {
    const how = browser()
    const begin = `${college.address}/api/sign-in/outside`
    asked = new URL(how.sentTo(await how.go(begin), begin)).searchParams
    const back = `${college.address}/api/sign-in/outside/back?code=c&state=${asked.get('state') ?? ''}`
    const response = await how.go(back)
    return { how, goesOn: how.sentTo(response, college.address).replace(college.address, '') }
  }
  it('lets somebody in while it tells the truth', async () => {
    const { how, goesOn } = await attempt()
    expect([goesOn, (await me(how)).status]).toEqual(['/', 200])
  })
  it.each<[string, typeof lie, string]>([
    ['for another program', { claims: { aud: 'another' } }, 'wrong-answer'],
    ['of another provider', { claims: { iss: 'https://else.example' } }, 'wrong-answer'],
    ['of another sign-in', { claims: { nonce: 'another' } }, 'wrong-answer'],
    ['without a nonce', { claims: { nonce: undefined } as JWTPayload }, 'wrong-answer'],
    ['that has run out', { claims: { exp: 1_000_000 } }, 'wrong-answer'],
    ['without anybody', { claims: { sub: '' } }, 'wrong-answer'],
    ['with a signature of somebody else', { strangeKey: true }, 'wrong-answer'],
    ['that is no token', { raw: '{"access_token":"x","token_type":"Bearer"}' }, 'wrong-answer'],
    ['that is no JSON', { raw: '<html>' }, 'wrong-answer'],
    ['that is a failure', { raw: '{"error":"server_error"}', status: 500 }, 'wrong-answer'],
    ['that is cut off', { tokenAway: true }, 'away'],
    ['that vouches for no address', { claims: { email_verified: false } }, 'no-account'],
    [
      'whose address is a list',
      { claims: { email: ['designer@kestrelsound.example'] } },
      'no-account',
    ],
  ])('signs nobody in by an answer %s', async (_, told, problem) => {
    lie = told
    const { how, goesOn } = await attempt()
    expect([goesOn, (await me(how)).status]).toEqual([`/?outside=${problem}`, 401])
  })
  it('is not asked without end by whoever comes back again and again, and lets in who waits', async () => {
    lie = { raw: '{}' }
    const ends = new Set<string>()
    for (let i = 0; i < 45; i++) ends.add((await attempt()).goesOn)
    expect([...ends]).toEqual(['/?outside=wrong-answer', '/?outside=throttled'])
    lie = {}
    expect((await attempt()).goesOn).toBe('/?outside=throttled')
    await college.pool.query(
      `UPDATE sign_in_tries
       SET since = TIMESTAMPADD(MINUTE, -11, NOW(3))`,
    )
    expect((await attempt()).goesOn).toBe('/')
  })
  it('lets in as many of one house as come, when they are who they say', async () => {
    for (let i = 0; i < 45; i++) expect((await attempt()).goesOn).toBe('/')
  })
  it('gives an account that one identity has to no other one with the same address', async () => {
    expect((await attempt()).goesOn).toBe('/')
    lie = { claims: { sub: 'the next who got that address' } }
    expect((await attempt()).goesOn).toBe('/?outside=no-account')
  })
  it('knows somebody whose address has changed by who they are', async () => {
    await attempt()
    lie = { claims: { email: 'married@kestrelsound.example' } }
    const { how } = await attempt()
    expect((await me(how)).body.email).toBe('designer@kestrelsound.example')
  })
})

describe('a provider that is away', () => {
  let server: Server | null = null
  afterEach(() => {
    server?.closeAllConnections()
    server?.close()
  })
  const attemptAt = async (issuer: string): Promise<string> => {
    college.outside(outsideProvider(settingsFor(issuer)))
    const how = browser()
    const begin = `${college.address}/api/sign-in/outside`
    return how.sentTo(await how.go(begin), begin).replace(college.address, '')
  }
  const serving = async (answer: (write: (body: string) => void) => void): Promise<string> => {
    server = createServer((_, response) =>
      answer((body) => {
        response.setHeader('content-type', 'application/json')
        response.end(body)
      }),
    )
    await new Promise<void>((resolve) => server?.listen(0, '127.0.0.1', resolve))
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  }
  it('is said to be away, and asked again the next time', async () => {
    expect(await attemptAt('http://127.0.0.1:1')).toBe('/?outside=away')
  })
  it('is not waited for without end', async () => {
    const began = performance.now()
    expect(await attemptAt(await serving(() => undefined))).toBe('/?outside=away')
    expect(performance.now() - began).toBeLessThan(60_000)
  })
  it('that speaks for another one is not believed', async () => {
    const issuer = await serving((write) => write('{"issuer":"https://else.example"}'))
    expect(await attemptAt(issuer)).toBe('/?outside=wrong-answer')
  })
})
