import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { OpenLink, PeoplePage, PersonEntry } from '@wickerframe/contract'
import { testPassword } from '@wickerframe/contract/testing'
import { exampleCourse, exampleFacts } from '@wickerframe/core/testing'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import type { Person } from './people.ts'

let college: PrivateCollege
let admin: Person
let asAdmin: Client

beforeAll(async () => {
  college = await startPrivateCollege()
})
afterAll(() => college.stop())
beforeEach(async () => {
  for (const table of ['people', 'sign_in_tries', 'account_requests', 'audit'])
    await college.pool.query(`DELETE FROM ${table}`)
  admin = await college.person('administrator')
  asAdmin = await college.as(admin)
})

const password = 'a kettle under the pier'
const invitation = {
  email: 'Maud@Kestrelsound.example',
  name: 'Maud Ferreira',
  roles: ['designer'],
  departments: [],
}
const tokenOf = ({ link }: OpenLink): string => link.split('#')[1] ?? ''
const invited = async (more: object = {}): Promise<OpenLink> =>
  (await asAdmin.post('/api/people', { ...invitation, ...more })).body
const take = (token: string, chosen = password) =>
  college.stranger.post('/api/links/use', { token, password: chosen })
const list = async (query = ''): Promise<PeoplePage> =>
  (await asAdmin.get(`/api/people${query}`)).body
const entryOf = async (email: string): Promise<PersonEntry> => {
  const [entry] = (await list(`?search=${email}`)).people
  if (!entry) throw new Error(`${email} is not there`)
  return entry
}
const audited = async (): Promise<string[]> =>
  (
    await college.rows<{ what: string }>(
      `SELECT what
       FROM audit
       ORDER BY id`,
    )
  ).map(({ what }) => what)

describe('an invitation', () => {
  it('lets somebody in once, with what they may do, and signs them in', async () => {
    const link = await invited()
    expect(link).toMatchObject({ email: 'maud@kestrelsound.example', name: 'Maud Ferreira' })
    expect(link.link).toMatch(/^https:\/\/wickerframe\.example\/welcome#[\w-]{43}$/)
    expect((await entryOf('maud')).state).toBe('invited')

    const read = await college.stranger.post('/api/links/read', { token: tokenOf(link) })
    expect(read.body).toMatchObject({ name: 'Maud Ferreira', purpose: 'invitation' })
    const taken = await take(tokenOf(link))
    expect(taken.body).toMatchObject({ email: 'maud@kestrelsound.example', roles: ['designer'] })
    expect(taken.headers.get('set-cookie')).toMatch(/HttpOnly.*SameSite=Strict/)
    expect(await entryOf('maud')).toMatchObject({ state: 'active', linkUntil: null })
    expect((await entryOf('maud')).signedInAt).toMatch(/^2\d{3}-/)
    const signedIn = await college.stranger.post('/api/sign-in', {
      email: 'maud@kestrelsound.example',
      password,
    })
    expect(signedIn.status).toBe(200)
    expect(await audited()).toEqual(['person invited', 'invitation taken', 'signed in'])

    for (const [path, body] of [
      ['/api/links/read', { token: tokenOf(link) }],
      ['/api/links/use', { token: tokenOf(link), password }],
    ] as const)
      expect((await college.stranger.post(path, body)).status).toBe(410)
  })
  it('is used by one of two at once, and the other is told so', async () => {
    const token = tokenOf(await invited())
    const taken = await Promise.all([take(token), take(token, 'another kettle, elsewhere')])
    expect(taken.map(({ status }) => status).sort()).toEqual([200, 410])
  })
  it('stays open while the password is not taken, which says why', async () => {
    const token = tokenOf(await invited())
    const refused = [
      ['short', /at least 15 characters/],
      ['passwordpassword', /among the first that are tried/],
      ['maudferreira1234', /hardly more than your name/],
    ] as const
    for (const [chosen, why] of refused) {
      const { status, body } = await take(token, chosen)
      expect([chosen, status]).toEqual([chosen, 400])
      expect(JSON.stringify(body)).toMatch(why)
    }
    expect((await take(token)).status).toBe(200)
  })
  it.each([
    ['forged', 'A'.repeat(43)],
    ['cut off', 'abc'],
  ])('that is %s says no more than one that was used', async (_, token) => {
    const { status, body } = await take(token)
    expect([status, body.title]).toEqual([410, 'link over'])
  })
  it('that has run out lets nobody in, nor one that a later one replaced', async () => {
    const first = tokenOf(await invited())
    const { id } = await entryOf('maud')
    const second = tokenOf((await asAdmin.post(`/api/people/${id}/link`)).body)
    expect((await take(first)).status).toBe(410)
    await college.pool.query(
      `UPDATE one_time_links
       SET expires_at = TIMESTAMPADD(SECOND, -1, NOW(3))`,
    )
    expect((await take(second)).status).toBe(410)
    expect(await entryOf('maud')).toMatchObject({ state: 'known', linkUntil: null })
  })
  it('keeps no token that somebody who reads the database could use', async () => {
    const token = tokenOf(await invited())
    const kept = JSON.stringify(
      await college.rows(`SELECT *
        FROM one_time_links`),
    )
    expect(kept).not.toContain(token)
    expect(kept).toContain('invitation')
  })
  it('of somebody who has an account is refused, and says who they are', async () => {
    await take(tokenOf(await invited()))
    const again = await asAdmin.post('/api/people', invitation)
    expect([again.status, again.body.detail]).toEqual([
      409,
      'maud@kestrelsound.example is Maud Ferreira, who has an account; change that one',
    ])
  })
})

describe('instructors of the roster', () => {
  it('are known, cannot sign in, and are all invited at once', async () => {
    await college.addCourse(exampleCourse().course)
    const [teaching] = exampleFacts().instructors
    expect(await entryOf(teaching?.email ?? '')).toMatchObject({
      name: teaching?.name,
      roles: ['instructor'],
      state: 'known',
    })
    const signIn = { email: teaching?.email, password: testPassword }
    expect((await college.stranger.post('/api/sign-in', signIn)).status).toBe(401)

    const { body } = await asAdmin.post('/api/people/known/invite')
    expect(body.links).toHaveLength(exampleFacts().instructors.length)
    expect((await asAdmin.post('/api/people/known/invite')).body.links).toEqual([])
    const again = (await asAdmin.post('/api/people/known/invite', { again: true })).body.links
    expect(again).toHaveLength(body.links.length)
    expect((await take(tokenOf(body.links[0]))).status).toBe(410)
    const taken = await take(tokenOf(again[0]))
    expect(taken.body.roles).toEqual(['instructor'])
  })
  it('keep the name they gave themselves when the roster has another', async () => {
    const [teaching] = exampleFacts().instructors
    const email = teaching?.email ?? ''
    const person = await college.person('instructor', email.split('@')[0])
    const client = await college.as(person)
    const { preferences } = (await client.get('/api/account')).body
    await client.post('/api/account', { name: 'As I am called', preferences })
    await college.addCourse({ ...exampleCourse().course, id: 'another' })
    expect((await entryOf(email)).name).toBe('As I am called')
  })
})

describe('changing somebody', () => {
  it('holds at once, for a session that is open', async () => {
    const designer = await college.person('designer')
    const client = await college.as(designer)
    expect((await client.get('/api/audit')).status).toBe(403)
    const { revision } = await entryOf(designer.email)
    const changed = await asAdmin.post(`/api/people/${designer.id}`, {
      was: revision,
      name: designer.name,
      roles: ['designer', 'administrator'],
      departments: ['NAV'],
    })
    expect(changed.body).toMatchObject({
      roles: ['designer', 'administrator'],
      departments: ['NAV'],
    })
    expect((await client.get('/api/audit')).status).toBe(200)
  })
  it('refuses what was decided on a state that another has changed, and shows what is there now', async () => {
    const designer = await college.person('designer')
    const { revision } = await entryOf(designer.email)
    const change = (name: string) =>
      asAdmin.post(`/api/people/${designer.id}`, {
        was: revision,
        name,
        roles: ['reviewer'],
        departments: [],
      })
    expect((await change('The first')).status).toBe(200)
    const second = await change('The second')
    expect([second.status, second.body.clash.present.name]).toEqual([409, 'The first'])
    expect((await entryOf(designer.email)).name).toBe('The first')
  })
  it('never leaves the college without an administrator, whichever of two is first', async () => {
    const other = await college.person('administrator', 'other')
    const asOther = await college.as(other)
    const demote = (client: Client, { id, name }: Person) =>
      client.post(`/api/people/${id}`, { was: 0, name, roles: ['designer'], departments: [] })
    const both = await Promise.all([demote(asAdmin, other), demote(asOther, admin)])
    expect(both.filter(({ status }) => status === 200)).toHaveLength(1)
    const left = (await college.rows(
      `SELECT person_id
       FROM person_roles
       WHERE role = 'administrator'`,
    )) as { person_id: number }[]
    expect(left).toHaveLength(1)
    const last = left[0]?.person_id === admin.id ? [asAdmin, admin] : [asOther, other]
    const [client, person] = last as [Client, Person]
    const { revision } = (await client.get(`/api/people?search=${person.email}`)).body.people[0]
    for (const answer of [
      await client.post(`/api/people/${person.id}/deactivate`, {
        was: revision,
        deactivated: true,
      }),
      await client.post(`/api/people/${person.id}`, {
        was: revision,
        name: person.name,
        roles: [],
        departments: [],
      }),
    ])
      expect([answer.status, answer.body.title]).toEqual([409, 'last administrator'])
    expect((await client.get('/api/people')).status).toBe(200)
  })
  it('that ends their account ends their sessions and links, and lets them back in later', async () => {
    const designer = await college.person('designer')
    const client = await college.as(designer)
    const link = tokenOf((await asAdmin.post(`/api/people/${designer.id}/link`)).body)
    const deactivate = async (deactivated: boolean) =>
      asAdmin.post(`/api/people/${designer.id}/deactivate`, {
        was: (await entryOf(designer.email)).revision,
        deactivated,
      })
    expect((await deactivate(true)).body.state).toBe('deactivated')
    expect((await client.get('/api/me')).status).toBe(401)
    expect((await take(link)).status).toBe(410)
    const signIn = { email: designer.email, password: testPassword }
    expect((await college.stranger.post('/api/sign-in', signIn)).status).toBe(401)
    expect((await asAdmin.post(`/api/people/${designer.id}/link`)).body.title).toBe('deactivated')
    await deactivate(false)
    expect((await college.stranger.post('/api/sign-in', signIn)).status).toBe(200)
  })
  it('gives a link to set another password, which ends every session', async () => {
    const designer = await college.person('designer')
    const client = await college.as(designer)
    const token = tokenOf((await asAdmin.post(`/api/people/${designer.id}/link`)).body)
    expect((await college.stranger.post('/api/links/read', { token })).body.purpose).toBe('reset')
    expect((await client.get('/api/me')).status).toBe(200)
    expect((await take(token)).status).toBe(200)
    expect((await client.get('/api/me')).status).toBe(401)
  })
})

describe('the list of people', () => {
  it('is looked through by name whatever the accents, by role, state and department, in pages', async () => {
    const names = Array.from({ length: 230 }, (_, i) => `Person ${String(i).padStart(3, '0')}`)
    await college.pool.query(
      `INSERT INTO people (email, name)
       VALUES ?`,
      [[...names, 'Élodie Brandt'].map((name, i) => [`p${i}@kestrelsound.example`, name])],
    )
    const first = await list()
    expect([first.people.length, first.total]).toEqual([100, 232])
    expect(first.counts).toEqual({ known: 231, invited: 0, active: 1, deactivated: 0, left: 0 })
    const seen = first.people.map(({ name }) => name)
    for (let { after } = first; after !== null;) {
      const page = await list(`?after=${after}`)
      seen.push(...page.people.map(({ name }) => name))
      after = page.after
    }
    expect(seen).toEqual(['Élodie Brandt', ...names, admin.name])
    expect((await list('?search=elodie')).people.map(({ name }) => name)).toEqual(['Élodie Brandt'])
    expect((await list('?search=P229@')).total).toBe(1)
    expect((await list('?search=%25')).total).toBe(0)
    expect((await list('?role=administrator')).total).toBe(1)
    expect((await list('?state=known')).total).toBe(231)
    expect((await list('?department=NAV')).total).toBe(0)
  })
  it('is for administrators only', async () => {
    for (const role of ['designer', 'contributor', 'instructor', 'reviewer'] as const)
      expect((await (await college.as(await college.person(role))).get('/api/people')).status).toBe(
        403,
      )
  })
})

describe('somebody without an account', () => {
  const ask = (more: object = {}) =>
    college.stranger.post('/api/account-requests', {
      email: 'maud@kestrelsound.example',
      name: 'Maud Ferreira',
      words: 'I teach NAV 110 from January.',
      ...more,
    })
  const requests = async () => (await asAdmin.get('/api/account-requests')).body

  it('asks for one, once, and an administrator lets them in', async () => {
    expect((await ask()).body).toEqual({})
    expect((await ask({ words: 'Please!' })).body).toEqual({})
    const [request, ...others] = await requests()
    expect([request.words, others]).toEqual(['I teach NAV 110 from January.', []])
    const answer = await asAdmin.post(`/api/account-requests/${request.id}`, {
      answer: 'let in',
      roles: ['instructor'],
      departments: [],
    })
    expect((await take(tokenOf(answer.body.link))).body.roles).toEqual(['instructor'])
    expect(await requests()).toEqual([])
    expect(
      (await asAdmin.post(`/api/account-requests/${request.id}`, { answer: 'refuse', why: 'No' }))
        .status,
    ).toBe(404)
  })
  it('is told the same whether there is an account or not', async () => {
    expect((await ask({ email: admin.email })).body).toEqual((await ask()).body)
  })
  it('is refused with a reason that is kept', async () => {
    await ask()
    const [{ id }] = await requests()
    const refuse = { answer: 'refuse', why: 'Nobody here knows you.' }
    expect((await asAdmin.post(`/api/account-requests/${id}`, refuse)).body).toEqual({ link: null })
    expect(await requests()).toEqual([])
    expect((await audited()).at(-1)).toBe('account refused')
  })
  it('cannot flood the list', async () => {
    const statuses = new Set<number>()
    for (let i = 0; i < 60; i++) statuses.add((await ask({ email: `a${i}@x.example` })).status)
    expect([...statuses].sort()).toEqual([200, 429])
    expect((await requests()).length).toBeLessThan(60)
  })
})

describe('one’s own account', () => {
  it('is there also for who has no role, and nothing else is', async () => {
    const designer = await college.person('designer')
    const client = await college.as(designer)
    await college.pool.query(
      `DELETE FROM person_roles
       WHERE person_id = ?`,
      [designer.id],
    )
    expect((await client.get('/api/me')).body).toMatchObject({ roles: [] })
    expect((await client.get('/api/account')).status).toBe(200)
    for (const path of ['/api/courses', '/api/templates', '/api/today', '/api/people'])
      expect([path, (await client.get(path)).status]).toEqual([path, 403])
    expect((await client.post('/api/sign-out')).status).toBe(200)
  })
  it('shows its sessions, ends one of them, and not those of another', async () => {
    const designer = await college.person('designer')
    const [here, there] = [await college.as(designer), await college.as(designer)]
    const { sessions } = (await here.get('/api/account')).body
    expect(sessions).toHaveLength(2)
    const other = sessions.find(({ isThis }: { isThis: boolean }) => !isThis)
    expect((await asAdmin.post(`/api/account/sessions/${other.id}/end`)).status).toBe(404)
    expect((await there.get('/api/me')).status).toBe(200)
    expect((await here.post(`/api/account/sessions/${other.id}/end`)).status).toBe(200)
    expect((await there.get('/api/me')).status).toBe(401)
    expect((await here.get('/api/me')).status).toBe(200)
  })
  it('keeps a name and what was chosen', async () => {
    const client = await college.as(await college.person('designer'))
    const changed = await client.post('/api/account', {
      name: '  Ingrid O. ',
      preferences: { theme: 'dark', tellOfRollouts: false },
    })
    expect(changed.body).toMatchObject({
      name: 'Ingrid O.',
      preferences: { theme: 'dark', tellOfRollouts: false },
    })
    expect((await client.get('/api/me')).body).toMatchObject({ name: 'Ingrid O.', theme: 'dark' })
  })
  it('refuses a common password and keeps the old one', async () => {
    const designer = await college.person('designer')
    const client = await college.as(designer)
    const change = { was: testPassword, password: 'qwertyuiopasdfghjkl' }
    expect((await client.post('/api/password', change)).body.title).toBe('weak password')
    const signIn = { email: designer.email, password: testPassword }
    expect((await college.stranger.post('/api/sign-in', signIn)).status).toBe(200)
  })
})
