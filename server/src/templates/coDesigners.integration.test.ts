import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Message } from '@wickerframe/contract'
import { exampleTemplate } from '@wickerframe/core/testing'
import type { Person } from '../people/people.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'

let college: PrivateCollege
let ingrid: Person
let other: Person
let asIngrid: Client
let asOther: Client
const { key, title } = exampleTemplate()

beforeAll(async () => {
  college = await startPrivateCollege()
  ingrid = await college.person('designer')
  other = await college.person('designer', 'other')
  asIngrid = await college.as(ingrid)
  asOther = await college.as(other)
  await college.release(exampleTemplate(), ingrid)
})
afterAll(() => college.stop())
beforeEach(() => college.pool.query('DELETE FROM messages'))

const put = (email: string, may = true, client = asIngrid) =>
  client.post(`/api/templates/${key}/designers`, { email, may })
let times = 0
const edit = async (client: Client) => {
  const { draft, draftRevision } = (await client.get(`/api/templates/${key}`)).body
  const answer = await client.post(`/api/templates/${key}/edits`, {
    revision: draftRevision,
    edits: [
      {
        edit: 'set-field',
        part: null,
        field: ['summary'],
        was: draft.summary,
        value: `Edited ${++times} times.`,
      },
    ],
  })
  expect(answer.status).toBe(200)
}
const messages = async (client: Client): Promise<Message[]> =>
  (await client.get('/api/messages')).body
const subjects = async (client: Client) =>
  (await messages(client)).filter(({ read }) => !read).map(({ subject }) => subject)

describe('a template', () => {
  it('is looked after by who brought it in, and by designers who are added', async () => {
    const designers = async () => (await asIngrid.get(`/api/templates/${key}`)).body.designers
    expect(await designers()).toEqual([{ name: ingrid.name, email: ingrid.email }])
    expect((await put(other.email)).status).toBe(200)
    expect((await put(other.email)).status).toBe(200)
    expect(await designers()).toHaveLength(2)
    const reviewer = await college.person('reviewer')
    for (const email of [reviewer.email, 'nobody@x.example'])
      expect((await put(email)).status).toBe(404)
    expect((await put(other.email, true, await college.as(reviewer))).status).toBe(403)
  })
})

describe('who looks after it', () => {
  it('is told once what another edits, until they put it away', async () => {
    await edit(asOther)
    await edit(asOther)
    expect(await subjects(asOther)).toEqual([])
    const [message, ...more] = await messages(asIngrid)
    expect([message?.subject, message?.template, more]).toEqual([
      `“${title}” is being changed`,
      key,
      [],
    ])
    await asIngrid.post(`/api/messages/${message?.id}/read`)
    expect(await subjects(asIngrid)).toEqual([])
    await edit(asOther)
    expect(await subjects(asIngrid)).toEqual([`“${title}” is being changed`])
  })
  it('is told of a version, by whom and why', async () => {
    const { draftRevision } = (await asOther.get(`/api/templates/${key}`)).body
    const released = await asOther.post(`/api/templates/${key}/release`, {
      revision: draftRevision,
      note: 'Clearer about the muster',
    })
    expect(released.status).toBe(200)
    const [message] = await messages(asIngrid)
    expect(message).toMatchObject({
      subject: `“${title}” has version 2`,
      body: `${other.name}: Clearer about the muster`,
    })
  })
  it('is not told who does not want to be, nor who no longer does', async () => {
    const { preferences } = (await asIngrid.get('/api/account')).body
    await asIngrid.post('/api/account', {
      name: ingrid.name,
      preferences: { ...preferences, tellOfTemplates: false },
    })
    await edit(asOther)
    expect(await subjects(asIngrid)).toEqual([])
    expect(await messages(asIngrid)).toHaveLength(1)
    await put(other.email, false)
    await edit(asIngrid)
    expect(await messages(asOther)).toEqual([])
  })
})
