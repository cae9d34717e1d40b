import { createHash } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  may,
  pathParameters,
  roles,
  routeNamed,
  routeNames,
  type CourseDetail,
  type CourseSummary,
  type Role,
  type RosterReport,
  type RunDetail,
  type TemplateDraft,
} from '@wickerframe/contract'
import { everyCourseItem, ownPrefix, withoutOwn, type Course } from '@wickerframe/core'
import { rosterCsv, makeRoster } from '@wickerframe/demo'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let clients: Record<Role, Client>
let courses: CourseSummary[]

beforeAll(async () => {
  bed = await startTestBed({ courses: 6 })
  clients = {
    designer: await bed.as('designer@kestrelsound.example'),
    contributor: await bed.as('contributor@kestrelsound.example'),
    reviewer: await bed.as('reviewer@kestrelsound.example'),
    administrator: await bed.as('administrator@kestrelsound.example'),
    instructor: await bed.as('sunniva.drake@kestrelsound.example'),
  }
  courses = (await clients.designer.get<CourseSummary[]>('/api/courses')).body
})
afterAll(() => bed.stop())

/** The address of a route, with something that may stand there in place of each parameter. */
const concrete = (path: string) =>
  path.replace(/:(\w+)/g, (_, name: string) => {
    if (name === 'course') return String(courses[0]?.id)
    if (name === 'template') return 'harbour-standard'
    return pathParameters[name as keyof typeof pathParameters].safeParse('1').success ? '1' : 'none'
  })

describe('roles', () => {
  it('every route refuses who may not do what it is for, before it looks at anything else', async () => {
    let refused = 0
    for (const route of routeNames.map(routeNamed)) {
      if (route.path.endsWith('/events')) continue
      const path = concrete(route.path)
      const anonymous = await fetch(bed.address + path, {
        method: route.method.toUpperCase(),
        headers: { 'x-wickerframe': '1' },
      })
      if (route.may === 'anyone') expect([path, anonymous.status]).not.toEqual([path, 401])
      else expect([path, anonymous.status]).toEqual([path, 401])
      for (const role of roles) {
        if (route.may === 'anyone' || may({ roles: [role] }, route.may)) continue
        const answer = await (route.method === 'get'
          ? clients[role].get<{ detail: string }>(path)
          : clients[role].post<{ detail: string }>(path, {}))
        expect([role, path, answer.status]).toEqual([role, path, 403])
        expect(answer.body.detail).toMatch(/^this is for [a-z, ]+$/)
        refused += 1
      }
    }
    expect(refused).toBeGreaterThan(100)
  })
  it('an instructor sees their own courses only: in lists, pages, reports, checks and runs', async () => {
    const own = (await clients.instructor.get<CourseSummary[]>('/api/courses')).body
    expect(own.length).toBeGreaterThan(0)
    expect(
      own.every((course) =>
        course.instructors.some((person) => person.email === 'sunniva.drake@kestrelsound.example'),
      ),
    ).toBe(true)
    const other = courses.find((course) => !own.some(({ id }) => id === course.id))
    const detail = (await clients.designer.get<CourseDetail>(`/api/courses/${other?.id}`)).body
    const item = detail.snapshot?.homePage ?? ''
    expect((await clients.designer.get(`/api/courses/${other?.id}/items/${item}`)).status).toBe(200)
    for (const path of [
      `/api/courses/${other?.id}`,
      `/api/courses/${other?.id}/items/${item}`,
      `/api/courses/${other?.id}/report`,
      '/api/runs/1',
      '/api/runs/1/events',
    ])
      expect([path, (await clients.instructor.get(path)).status]).toEqual([path, 404])
    expect((await clients.instructor.post(`/api/courses/${other?.id}/check`, {})).status).toBe(404)
    expect((await clients.instructor.post(`/api/courses/${own[0]?.id}/check`, {})).status).toBe(200)
  })
  it('a contributor edits the template they work on, and no other', async () => {
    const edit = (key: string) =>
      clients.contributor.post(`/api/templates/${key}/edits`, {
        revision: 0,
        edits: [
          {
            edit: 'set-field',
            part: 'technology',
            field: ['strength'],
            was: 'should',
            value: 'should',
          },
        ],
      })
    expect((await edit('navigation-programme')).status).toBe(200)
    expect((await edit('harbour-standard')).status).toBe(403)
    expect((await edit('short-course-standard')).status).toBe(403)
  })
})

describe('requests that did not come from our pages', () => {
  it('are refused: without the header, from another origin, with a stale cookie', async () => {
    const post = (headers: Record<string, string>) =>
      fetch(`${bed.address}/api/sign-out`, { method: 'POST', headers })
    expect((await post({ cookie: clients.designer.cookie })).status).toBe(403)
    expect(
      (
        await post({
          cookie: clients.designer.cookie,
          'x-wickerframe': '1',
          origin: 'https://elsewhere.example',
        })
      ).status,
    ).toBe(403)
    expect(
      (await post({ cookie: 'wickerframe-session=nonsense', 'x-wickerframe': '1' })).status,
    ).toBe(401)
  })
  it('signing in is throttled per address, and says nothing of who exists', async () => {
    const attempt = async (email: string) =>
      (await clients.designer.post('/api/sign-in', { email, password: 'wrong' })).status
    expect(await attempt('nobody@kestrelsound.example')).toBe(401)
    for (let i = 0; i < 8; i++) await attempt('throttled@kestrelsound.example')
    expect(await attempt('throttled@kestrelsound.example')).toBe(429)
  })
})

describe('drafts and versions', () => {
  it('two people keep both their edits, unless they touch the same field; then the second is shown both', async () => {
    const strength = (value: string, was: string) =>
      clients.designer.post(`/api/templates/distance-standard/edits`, {
        revision: 0,
        edits: [{ edit: 'set-field', part: 'technology', field: ['strength'], was, value }],
      })
    expect((await strength('must', 'should')).status).toBe(200)
    const rename = await clients.administrator.post('/api/templates/distance-standard/edits', {
      revision: 0,
      edits: [
        {
          edit: 'set-field',
          part: 'technology',
          field: ['name'],
          was: 'Technology you need',
          value: 'What you need',
        },
      ],
    })
    expect(rename.status).toBe(200)
    const clash = await strength('may', 'should')
    expect(clash).toMatchObject({
      status: 409,
      body: { clash: { present: 'must', wanted: 'may' } },
    })
    expect(
      (await clients.designer.get<TemplateDraft>('/api/templates/distance-standard')).body.draft
        .parts[0],
    ).toMatchObject({
      items: expect.arrayContaining([
        expect.objectContaining({ key: 'technology', name: 'What you need', strength: 'must' }),
      ]),
    })
  })
  it('a released version never changes, not even by SQL', async () => {
    const draft = (await clients.designer.get<TemplateDraft>('/api/templates/distance-standard'))
      .body
    expect(
      (
        await clients.designer.post('/api/templates/distance-standard/release', {
          revision: draft.draftRevision - 1,
        })
      ).status,
    ).toBe(409)
    expect(
      (
        await clients.designer.post('/api/templates/distance-standard/release', {
          revision: draft.draftRevision,
        })
      ).body,
    ).toEqual({ version: 2 })
    expect(
      (
        await clients.designer.post('/api/templates/distance-standard/release', {
          revision: draft.draftRevision,
        })
      ).status,
    ).toBe(409)
    await expect(
      bed.pool.query(`UPDATE template_versions
        SET note = 'x'`),
    ).rejects.toThrow('a released version never changes')
    expect(
      (
        await clients.designer.get<{ version: number }>(
          '/api/templates/distance-standard/versions/1',
        )
      ).body.version,
    ).toBe(1)
  })
})

describe('a roster imported again', () => {
  const csv = () => rosterCsv(makeRoster(6))
  const send = (text: string | Uint8Array, dry = false) =>
    clients.designer.post<RosterReport>(`/api/roster${dry ? '?dry=1' : ''}`, text, {
      'content-type': 'text/csv',
    })
  it('changes only what differs', async () => {
    expect((await send(csv())).body).toMatchObject({ added: 0, changed: 0, unchanged: 6 })
    const changed = csv().replaceAll('Radar and Plotting', 'Radar and Plotting I')
    expect((await send(changed, true)).body).toMatchObject({
      dry: true,
      changed: 1,
      changes: [{ field: 'title', from: 'Radar and Plotting', to: 'Radar and Plotting I' }],
    })
    expect((await send(csv())).body).toMatchObject({ changed: 0 })
    expect((await send(changed)).body).toMatchObject({ changed: 1, unchanged: 5 })
    expect((await send(csv())).body).toMatchObject({ changed: 1 })
  })
  it('changes nothing when a line is wrong', async () => {
    const before = (await clients.designer.get('/api/courses')).body
    const answer = await send(
      csv()
        .replaceAll('Radar and Plotting', 'Another title')
        .replaceAll('autumn-2026', 'autumn-1999'),
    )
    expect(answer.body.errors[0]).toMatchObject({ line: 2, column: 'term', found: 'autumn-1999' })
    expect((await clients.designer.get('/api/courses')).body).toEqual(before)
  })
})

describe('bad input', () => {
  it.each([
    ['malformed JSON', '/api/rollouts', '{"order":', 400],
    [
      'an unknown field',
      '/api/rollouts',
      {
        order: { mode: 'version', template: 'harbour-standard', version: 1 },
        courses: [1],
        colour: 'red',
      },
      400,
    ],
    [
      'a course that is not there',
      '/api/rollouts',
      { order: { mode: 'version', template: 'harbour-standard', version: 1 }, courses: [987654] },
      404,
    ],
    ['a date that is none', '/api/checks', { asOf: '2026-02-30' }, 400],
    [
      'a template with a mistake in a naming format',
      '/api/templates',
      {
        schema: 'wickerframe.template/1',
        key: 'bad',
        title: 'Bad',
        naming: { courseName: '{cod}', courseLabel: 'x' },
        home: { name: 'x', blocks: [] },
        parts: [],
      },
      400,
    ],
    [
      'a template that is taken',
      '/api/templates',
      {
        schema: 'wickerframe.template/1',
        key: 'harbour-standard',
        title: 'Bad',
        naming: { courseName: 'x', courseLabel: 'x' },
        home: { name: 'x', blocks: [] },
        parts: [],
      },
      409,
    ],
    ['nonsense of 13 MB', '/api/roster', new Uint8Array(13_000_000).fill(120), 413],
    [
      'a draft edit of what cannot be set',
      '/api/templates/harbour-standard/edits',
      {
        revision: 0,
        edits: [
          { edit: 'set-field', part: null, field: ['__proto__'], was: null, value: { x: 1 } },
        ],
      },
      400,
    ],
  ])('%s is refused in words', async (_, path, body, status) => {
    const answer = await clients.designer.post<{ detail: string; status: number }>(path, body)
    expect(answer.status).toBe(status)
    expect(answer.body.detail.length).toBeGreaterThan(10)
    expect(JSON.stringify(answer.body)).not.toMatch(/SELECT|at Object|node_modules/)
  })
  it('points into a wrong naming format', async () => {
    const answer = await clients.designer.post<{ detail: string }>('/api/templates', {
      schema: 'wickerframe.template/1',
      key: 'bad',
      title: 'Bad',
      naming: { courseName: 'Week {wek}', courseLabel: 'x' },
      home: { name: 'x', blocks: [] },
      parts: [],
    })
    expect(answer.body.detail).toContain('/naming/courseName')
    expect(answer.body.detail).toContain('at character 7; did you mean week?')
  })
  it('HTML with script in it never reaches a reader as script', async () => {
    const course = courses[0] as CourseSummary
    const detail = (await clients.designer.get<CourseDetail>(`/api/courses/${course.id}`)).body
    const home = detail.snapshot?.homePage ?? ''
    const snapshot = detail.snapshot as Course
    const hashOf = (html: string) => createHash('sha256').update(html).digest('hex')
    const hash = hashOf(
      withoutOwn(
        everyCourseItem(snapshot).find(({ item }) => item.id === home)?.item.html ?? '',
        ownPrefix(snapshot),
      ).html,
    )
    const hostile =
      '<p>hello</p><script>alert(1)</script><img src=x onerror=alert(1)><a href="javascript:alert(1)">x</a>'
    await bed.pool.query(
      `INSERT INTO page_bodies (hash, html)
       VALUES (?, ?)`,
      [hashOf(hostile), hostile],
    )
    const become = (from: string, to: string) =>
      bed.pool.query(
        `UPDATE snapshots
         SET document = REPLACE(document, ?, ?)
         WHERE course_id = ?`,
        [from, to, course.id],
      )
    await become(hash, hashOf(hostile))
    const page = await fetch(`${bed.address}/api/courses/${course.id}/items/${home}`, {
      headers: { cookie: clients.designer.cookie },
    })
    const html = await page.text()
    await become(hashOf(hostile), hash)
    expect(html).toContain('hello')
    expect(html).not.toMatch(/<script|onerror|javascript:/)
    expect(page.headers.get('content-security-policy')).toContain('sandbox')
  })
})

describe('checks', () => {
  it('are not computed again while nothing changed, and are the same as a full one', async () => {
    const run = async () => {
      const { body } = await clients.designer.post<{ run: number }>('/api/checks', {})
      return until(
        async () => (await clients.designer.get<RunDetail>(`/api/runs/${body.run}`)).body,
        (detail) => detail.state === 'done',
      )
    }
    const worker = await bed.startWorker()
    await run()
    const outcome = (await clients.designer.get<CourseDetail>(`/api/courses/${courses[0]?.id}`))
      .body.result
    const again = await run()
    expect(
      again.tasks.filter((task) => task.message === 'unchanged since the last check'),
    ).toHaveLength(again.tasks.length)
    await bed.pool.query('DELETE FROM check_results')
    await run()
    const full = (await clients.designer.get<CourseDetail>(`/api/courses/${courses[0]?.id}`)).body
      .result
    const { course: _, ...rest } = full as NonNullable<typeof full>
    expect(outcome).toMatchObject(rest)
    await bed.misbehave('server-error', 1)
    expect((await run()).counts.done).toBe(again.tasks.length)
    await worker.stop()
  })
})
