import { createHash, randomBytes } from 'node:crypto'
import { createServer, type Server } from 'node:http'
import { fileURLToPath } from 'node:url'
import express from 'express'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { connectorPath } from '@wickerframe/contract'
import { mostFileBytes } from '@wickerframe/core'
import { startFreshSchema, type FreshSchema } from '@wickerframe/storage/testing'
import { connectorRoutes } from './connectorRoutes.ts'
import { Courses } from './courses.ts'
import { Misbehaviours, type Misbehaviour } from './misbehave.ts'
import { screenRoutes } from './screenRoutes.ts'

const token = 'sixteen-letters-for-the-connector'
let schema: FreshSchema
let server: Server
let address: string
let misbehaviours: Misbehaviours
let clock = Date.UTC(2026, 8, 16, 12)
beforeAll(async () => {
  schema = await startFreshSchema(fileURLToPath(new URL('../migrations', import.meta.url)))
  const courses = new Courses(schema.pool, () => new Date(clock).toISOString())
  misbehaviours = new Misbehaviours(schema.pool)
  const app = express()
  app.use(connectorPath, connectorRoutes(courses, misbehaviours, schema.pool, token))
  app.use(screenRoutes(courses, misbehaviours, schema.pool))
  server = createServer(app)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const bound = server.address()
  address = `http://127.0.0.1:${typeof bound === 'object' && bound ? bound.port : 0}`
})
afterAll(async () => {
  server.closeAllConnections()
  await new Promise((resolve) => server.close(resolve))
  await schema.stop()
})
let course: string
let made = 0
beforeEach(async () => {
  await schema.pool.query('DELETE FROM misbehaviours')
  course = `c-${++made}`
  expect((await post('/courses', { id: course, name: 'Knots' })).status).toBe(200)
})

const ask = async (
  path: string,
  {
    method = 'GET',
    body,
    headers = {},
  }: { method?: string; body?: BodyInit; headers?: object } = {},
) => {
  const response = await fetch(`${address}${connectorPath}${path}`, {
    method,
    ...(body === undefined ? {} : { body }),
    headers: { authorization: `Bearer ${token}`, ...headers } as Record<string, string>,
  })
  const text = await response.text()
  return { status: response.status, headers: response.headers, body: JSON.parse(text || 'null') }
}
const post = (path: string, body: unknown, headers: object = {}) =>
  ask(path, {
    method: 'POST',
    body: typeof body === 'string' ? body : JSON.stringify(body),
    headers: { 'content-type': 'application/json', ...headers },
  })
const snapshot = async () => (await ask(`/courses/${course}/snapshot`)).body
const page = (clientId: string, html = '<p>Hello</p>') => ({
  change: 'create-item',
  clientId,
  module: null,
  at: 0,
  kind: 'page',
  fields: { name: `Page ${clientId}`, html },
})
let keys = 0
const newKey = () => `key-number-${++keys}`
const apply = async (changes: unknown[], key = newKey(), revision?: string) =>
  post(
    `/courses/${course}/change-sets`,
    { expectedRevision: revision ?? (await snapshot()).revision, changes },
    { 'idempotency-key': key },
  )
const names = async (): Promise<string[]> =>
  (await snapshot()).stray.map(({ name }: { name: string }) => name)
const misbehave = (name: Misbehaviour, times = 1) => misbehaviours.set(name, times)

describe('the connector of the practice platform', () => {
  it.each(['', 'Bearer wrong', token])('answers nobody without its token: “%s”', async (given) => {
    const answer = await ask('/courses', { headers: { authorization: given } })
    expect([answer.status, answer.body.code]).toEqual([401, 'no-token'])
  })
  it.each([
    ['no JSON', 'Dear platform,', 'unusable-body'],
    ['another shape', { id: 7 }, 'unusable-body'],
    ['very deep', '['.repeat(5000), 'unusable-body'],
  ])('refuses a body that is %s, with what was found', async (_, body, code) => {
    const answer = await post('/courses', body)
    expect([answer.status, answer.body.code]).toEqual([400, code])
    expect(answer.body.detail).toMatch(/found/)
  })
  it('tells a course that is not there from one that is empty', async () => {
    expect((await ask('/courses/none/snapshot')).status).toBe(404)
    expect(await snapshot()).toMatchObject({ id: course, modules: [], stray: [] })
  })
  it('lists what changed after a cursor, and nothing twice', async () => {
    const { courses } = (await ask('/courses?after=0')).body
    const last = Math.max(...courses.map(({ cursor }: { cursor: number }) => cursor))
    expect((await ask(`/courses?after=${last}`)).body.courses).toEqual([])
    await apply([page('a')])
    const after = (await ask(`/courses?after=${last}`)).body.courses
    expect(after.map(({ id }: { id: string }) => id)).toEqual([course])
  })
  it('knows no cursor that it never gave, as after it was brought back as it stood before', async () => {
    const { cursor } = (await ask('/courses?after=0')).body
    const answer = await ask(`/courses?after=${cursor + 1}`)
    expect([answer.status, answer.body.code]).toEqual([400, 'unknown-cursor'])
    expect((await ask(`/courses?after=${cursor}`)).status).toBe(200)
  })
})

describe('the first name of whoever reads a page', () => {
  it('is told, kept as it was written, and read as a name; or is said not to be shown', async () => {
    const { readerName } = (await ask('/courses?after=0')).body
    await apply([page('a', `<p>Welcome, ${readerName}.</p>`)])
    const [item] = (await snapshot()).stray
    expect(item?.html).toContain(`Welcome, ${readerName}.`)
    const shown = await (await fetch(`${address}/courses/${course}/items/${item?.id}`)).text()
    expect(shown).toContain('Welcome, Linnea.')
    await misbehave('no-reader-name')
    expect((await ask('/courses?after=0')).body.readerName).toBeNull()
  })
})

describe('a change set', () => {
  it('is done wholly, or not at all', async () => {
    const answer = await apply([page('a'), { change: 'remove-item', id: 'no-such' }])
    expect(answer.status).toBe(409)
    expect(await names()).toEqual([])
  })
  it('is done once for its key, however often it is sent, and gives the same ids', async () => {
    const { revision } = await snapshot()
    const key = newKey()
    const [first, again] = [
      await apply([page('a')], key, revision),
      await apply([page('a')], key, revision),
    ]
    expect(first.status).toBe(200)
    expect(again.body).toEqual(first.body)
    expect(await names()).toEqual(['Page a'])
  })
  // IETF draft on the Idempotency-Key header: a key used again for another payload is 422; from memory.
  it('under a key that did something else is refused', async () => {
    const { revision } = await snapshot()
    const key = newKey()
    await apply([page('a')], key, revision)
    expect((await apply([page('b')], key, revision)).status).toBe(422)
    expect(await names()).toEqual(['Page a'])
  })
  it('for a revision that is past is refused, and nothing is written', async () => {
    const { revision } = await snapshot()
    await apply([page('a')])
    expect((await apply([page('b')], newKey(), revision)).status).toBe(409)
    expect(await names()).toEqual(['Page a'])
  })
  it('gives a revision that was never there, also when the database is brought back from a copy of itself', async () => {
    const [copy] = await schema.pool.query(
      `SELECT revision, document
       FROM courses
       WHERE id = ?`,
      [course],
    )
    const [{ revision, document }] = copy as [{ revision: number; document: string }]
    await apply([page('a')])
    const lost = (await snapshot()).revision
    await schema.pool.query(
      `UPDATE courses
       SET revision = ?, document = ?
       WHERE id = ?`,
      [revision, document, course],
    )
    clock += 1000
    await apply([page('b')])
    expect([await names(), (await snapshot()).revision === lost]).toEqual([['Page b'], false])
  })
  it.each(['', 'short', 'with spaces in it'])(
    'without a sound key is refused: “%s”',
    async (key) => {
      const answer = await apply([page('a')], key)
      expect([answer.status, answer.body.code]).toEqual([400, 'no-key'])
    },
  )
  it('of ten at once is done by one', async () => {
    const { revision } = await snapshot()
    const answers = await Promise.all(
      Array.from({ length: 10 }, (_, i) => apply([page(`p${i}`)], newKey(), revision)),
    )
    expect(answers.filter(({ status }) => status === 200)).toHaveLength(1)
    expect(await names()).toHaveLength(1)
  })
  it('whose key was made void is never done', async () => {
    const key = newKey()
    expect((await post(`/keys/${key}/void`, {})).status).toBe(200)
    expect((await apply([page('a')], key)).status).toBeGreaterThanOrEqual(400)
    expect(await names()).toEqual([])
  })
  it('drops what runs from the HTML it is given', async () => {
    await apply([page('a', '<p onclick="x()">Hi<script>alert(1)</script></p>')])
    const [item] = (await snapshot()).stray
    expect(item.html).not.toMatch(/script|onclick/)
    expect(item.html).toContain('Hi')
  })
})

describe('a misbehaviour', () => {
  it('loses the answer, but not what was done, and says so when asked by key', async () => {
    await misbehave('lost-answer')
    const key = newKey()
    await expect(apply([page('a')], key)).rejects.toThrow()
    expect(await names()).toEqual(['Page a'])
    expect((await ask(`/keys/${key}`)).body).toMatchObject({ state: 'applied' })
  })
  it('sends another course, once', async () => {
    await misbehave('wrong-course')
    expect((await snapshot()).id).not.toBe(course)
    expect((await snapshot()).id).toBe(course)
  })
  it.each([
    ['too-many-requests', 429],
    ['server-error', 500],
  ] as const)('%s lasts as many times as it was told', async (name, status) => {
    await misbehave(name, 2)
    const statuses = [1, 2, 3].map(async () => (await ask('/courses')).status)
    expect((await Promise.all(statuses)).sort()).toEqual([200, status, status])
  })
  it('edits the course in between, so that the change set is refused', async () => {
    const { revision } = await snapshot()
    await misbehave('edit-in-between')
    expect((await apply([page('a')], newKey(), revision)).status).toBe(409)
    expect(await names()).toEqual([])
  })
})

describe('an image', () => {
  const put = (name: string, bytes: BodyInit) =>
    ask(`/assets/${name}`, {
      method: 'PUT',
      body: bytes,
      headers: { 'content-type': 'application/octet-stream' },
    })
  const svg = '<svg xmlns="http://www.w3.org/2000/svg"/>'
  it('is kept under its name, and the same again changes nothing', async () => {
    expect((await put('knot.svg', svg)).body).toEqual({ url: '/files/knot.svg' })
    expect((await put('knot.svg', svg)).status).toBe(200)
  })
  it('never takes the place of another one', async () => {
    await put('chart.svg', svg)
    const other = await put('chart.svg', svg.replace('/>', ' id="b"/>'))
    expect([other.status, other.body.code]).toEqual([409, 'name-taken'])
  })
  it.each([
    ['..%2Fetc.svg', svg, 'unusable-name'],
    ['words.svg', 'only words', 'unusable-image'],
    ['empty.svg', '', 'no-bytes'],
  ])('%s is refused where it is none', async (name, bytes, code) => {
    const answer = await put(name, bytes)
    expect([answer.status, answer.body.code]).toEqual([400, code])
  })
})

describe('the platform’s own forms', () => {
  const form = (origin: string | null) =>
    fetch(`${address}/misbehaviours`, {
      method: 'POST',
      body: new URLSearchParams({ name: 'server-error', remaining: '1' }),
      redirect: 'manual',
      headers: origin === null ? {} : { origin },
    })
  it('are taken from its own pages', async () => {
    expect((await form(address)).status).toBe(303)
    expect((await form(null)).status).toBe(303)
  })
  it.each(['https://elsewhere.example', 'nonsense'])('are refused from %s', async (origin) => {
    expect((await form(origin)).status).toBe(403)
    expect((await misbehaviours.all())['server-error']).toBe(0)
  })
  it('show no page of a course that is not there', async () => {
    expect((await fetch(`${address}/courses/none`)).status).toBe(404)
    expect((await fetch(`${address}/courses/${course}`)).status).toBe(200)
  })
})

describe('what assessments ask', () => {
  const quiz = (order: object[] = []) => ({
    change: 'create-item',
    clientId: 'quiz',
    module: null,
    at: 0,
    kind: 'assessment',
    fields: { name: 'Quiz', questions: { order, remove: [] } },
  })
  const why = {
    clientId: 'why',
    body: { kind: 'essay', text: '<p onclick="x()">Why?</p>', points: 2 },
  }
  const questions = async () => (await snapshot()).stray[0]?.questions
  const screenPost = (action: string, fields: Record<string, string>, item: string) =>
    fetch(`${address}/courses/${course}/items/${item}/${action}`, {
      method: 'POST',
      body: new URLSearchParams(fields),
      redirect: 'manual',
    })
  it('is told with the platform’s own ids, cleaned of what runs; an assessment without any tells none', async () => {
    const answer = await apply([quiz([why])])
    expect(Object.keys(answer.body.ids).sort()).toEqual(['quiz', 'why'])
    expect(await questions()).toEqual([
      { id: answer.body.ids.why, body: { kind: 'essay', text: '<p>Why?</p>', points: 2 } },
    ])
    await apply([{ ...quiz(), clientId: 'empty', at: 0 }])
    expect(await questions()).toEqual([])
  })
  it('can be kept from the connector, in every answer, and is there all the same', async () => {
    await apply([quiz([why])])
    await misbehave('hide-questions')
    expect(await questions()).toBeUndefined()
    const key = newKey()
    const set = await apply([{ change: 'set-course', label: 'Knots' }], key)
    expect(set.body.course.stray[0].questions).toBeUndefined()
    const fate = (await ask(`/keys/${key}`)).body
    expect(JSON.stringify(fate)).not.toContain('Why?')
    await misbehave('hide-questions', 0)
    expect(await questions()).toHaveLength(1)
  })
  it('is written by whoever teaches: added from a list, asked otherwise, taken out', async () => {
    const made = await apply([quiz([why])])
    const item = made.body.ids.quiz
    const list = '1. Which?\n*a) this <script>x</script>\nb) that\n2. Name it.\nAnswer: tide'
    expect((await screenPost('add-questions', { list }, item)).status).toBe(303)
    const [first, second] = (await questions()) as { id: string }[]
    await screenPost('word-question', { question: first?.id ?? '', text: 'Why & how?' }, item)
    await screenPost('remove-question', { question: second?.id ?? '' }, item)
    expect((await questions()).map(({ body }: { body: { text: string } }) => body.text)).toEqual([
      '<p>Why &amp; how?</p>',
      '<p>Name it.</p>',
    ])
    const shown = await (await fetch(`${address}/courses/${course}/items/${item}`)).text()
    expect(shown).toContain('Why &amp; how?')
    expect(shown).not.toContain('<script>')
  })
  it.each([
    ['add-questions', { list: '  ' }],
    ['word-question', { question: 'q0', text: 'What?' }],
    ['remove-question', {}],
  ])('is left as it is where a form says nothing: %s', async (action, fields) => {
    const made = await apply([quiz([why])])
    expect(
      (await screenPost(action, fields as Record<string, string>, made.body.ids.quiz)).status,
    ).toBe(400)
    expect(await questions()).toHaveLength(1)
  })
  it('is not touched once students have handed in', async () => {
    const made = await apply([quiz([why])])
    const item = made.body.ids.quiz
    await screenPost('hand-in', {}, item)
    expect((await screenPost('add-questions', { list: '1. Why?' }, item)).status).toBe(409)
    const set = await apply([
      { change: 'set-item', id: item, fields: { questions: { order: [], remove: [] } } },
    ])
    expect([set.status, set.body.code]).toEqual([409, 'student-work'])
  })
})

describe('files of the practice platform', () => {
  const sha = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')
  const put = (content: string, bytes: Uint8Array) =>
    ask(`/contents/${content}`, { method: 'PUT', body: new Uint8Array(bytes) })
  const fileItem = (clientId: string, file: object | null) => ({
    change: 'create-item',
    clientId,
    module: null,
    at: null,
    kind: 'file',
    fields: { name: `File ${clientId}`, file },
  })
  const first = async () => (await snapshot()).stray[0]
  const upload = (path: string, name: string, bytes: Uint8Array) => {
    const form = new FormData()
    form.set('file', new Blob([new Uint8Array(bytes)]), name)
    return fetch(`${address}${path}`, { method: 'POST', body: form, redirect: 'manual' })
  }

  it('keeps bytes under what they are, once, and says whether it holds them', async () => {
    const bytes = randomBytes(700_000)
    expect((await ask(`/contents/${sha(bytes)}`)).body).toEqual({ held: false })
    for (const _ of [1, 2])
      expect((await put(sha(bytes), bytes)).body).toEqual({ content: sha(bytes) })
    expect((await ask(`/contents/${sha(bytes)}`)).body).toEqual({ held: true })
  })
  it('takes no bytes under what they are not, nor under a name', async () => {
    const bytes = randomBytes(1000)
    expect((await put(sha(randomBytes(3)), bytes)).status).toBe(400)
    expect((await ask(`/contents/${sha(bytes)}`)).body).toEqual({ held: false })
    expect((await put('guide.pdf', bytes)).status).toBe(400)
    expect((await put(sha(new Uint8Array()), new Uint8Array())).status).toBe(400)
    const large = Buffer.alloc(mostFileBytes + 1)
    expect((await put(sha(large), large)).status).toBe(413)
  })
  it('shows what an item was given, and refuses a set that speaks of what it does not hold, or of a document that is not filled', async () => {
    const bytes = randomBytes(2000)
    const content = sha(bytes)
    const early = await apply([fileItem('a', { name: 'guide.pdf', content })])
    expect([early.status, early.body.code]).toEqual([409, 'no-content'])
    await put(content, bytes)
    const unfilled = await apply([
      fileItem('a', { name: 'g.docx', content, fields: { '{code}': 'X' } }),
    ])
    expect(unfilled.status).toBe(409)
    expect((await apply([fileItem('a', { name: 'guide.pdf', content })])).status).toBe(200)
    expect((await snapshot()).files).toMatchObject([
      { name: 'guide.pdf', content, restricted: false },
    ])
    expect((await first()).file).toEqual({ name: 'guide.pdf', content })
    const read = await fetch(`${address}${connectorPath}/courses/${course}/contents/${content}`, {
      headers: { authorization: `Bearer ${token}` },
    })
    expect(Buffer.from(await read.arrayBuffer()).equals(bytes)).toBe(true)
    const other = randomBytes(10)
    await put(sha(other), other)
    expect((await ask(`/courses/${course}/contents/${sha(other)}`)).status).toBe(404)
    const shown = await fetch(`${address}${(await snapshot()).files[0].url}`)
    expect(shown.headers.get('content-disposition')).toContain('attachment')
    expect(Buffer.from(await shown.arrayBuffer()).equals(bytes)).toBe(true)
  })
  it('lets whoever teaches the course put in another, take it out, and give the course files that students see or not', async () => {
    await apply([fileItem('a', null)])
    const { id } = await first()
    const base = `/courses/${course}/items/${id}`
    expect((await upload(`${base}/put-file`, 'Prüfung.docx', randomBytes(500_000))).status).toBe(
      303,
    )
    expect((await first()).file.name).toBe('Prüfung.docx')
    expect((await upload(`${base}/put-file`, 'run.exe', randomBytes(10))).status).toBe(400)
    expect((await upload(`${base}/put-file`, 'nothing.pdf', new Uint8Array())).status).toBe(400)
    expect((await first()).file.name).toBe('Prüfung.docx')
    await fetch(`${address}${base}/remove-file`, { method: 'POST', redirect: 'manual' })
    expect((await first()).file).toBeNull()
    await upload(`/courses/${course}/put-file`, 'grades.csv', Buffer.from('a,b'))
    const [held] = (await snapshot()).files
    expect(held).toMatchObject({ name: 'grades.csv', restricted: false })
    const act = (action: string) =>
      fetch(`${address}/courses/${course}/files/${held.id}/${action}`, {
        method: 'POST',
        redirect: 'manual',
      })
    await act('keep')
    expect((await snapshot()).files[0].restricted).toBe(true)
    expect(await (await fetch(`${address}/courses/${course}`)).text()).toContain(
      'kept from students',
    )
    await act('remove')
    expect((await snapshot()).files).toEqual([])
  })
  it('told to keep it to itself, tells neither files nor which an item shows', async () => {
    await apply([fileItem('a', null)])
    await misbehave('hide-files')
    expect(await first()).not.toHaveProperty('file')
    expect(await snapshot()).not.toHaveProperty('files')
  })
})
