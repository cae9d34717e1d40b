import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { CourseSummary, RosterReport } from '@wickerframe/contract'
import { exampleCourse, exampleTemplate } from '@wickerframe/core/testing'
import { beginSession } from '../people/sessions.ts'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())
beforeEach(async () => {
  await college.pool.query(`DELETE FROM courses
    WHERE platform_id <> 'example'`)
  for (const id of ['knots', 'sails']) await college.platform.connector.create(id, 'New course')
})

const header =
  'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,platform course id,status'
const row = (platformId: string, more: Partial<Record<string, string>> = {}): string =>
  [
    more['code'] ?? 'SEA 101',
    more['title'] ?? 'Knots',
    more['term'] ?? 'autumn-2026',
    '',
    more['section'] ?? '01',
    'own',
    more['email'] ?? 'olin.reef@kestrelsound.example',
    more['name'] ?? 'Olin Reef',
    'on-campus',
    more['weeks'] ?? '8',
    platformId,
    more['status'] ?? 'teaching',
  ].join(',')
const bring = async (rows: string[], query = ''): Promise<RosterReport> => {
  const { body } = await college.people.designer.send(
    `/api/roster${query}`,
    [header, ...rows].join('\n'),
  )
  return body
}
const courses = async (): Promise<CourseSummary[]> =>
  (await college.people.designer.get('/api/courses')).body
const found = async (platformId: string) =>
  (await courses()).find((course) => course.platformId === platformId)

describe('a roster', () => {
  it('is shown first, with nothing written, and brought in as it was shown', async () => {
    const dry = await bring([row('knots'), row('sails', { code: 'SEA 102' })], '?dry=1')
    expect(dry).toMatchObject({ dry: true, added: 2, changed: 0, rows: 2, errors: [] })
    expect(await found('knots')).toBeUndefined()
    const other = await bring([row('knots')], `?shown=${dry.digest}`)
    expect(other).toMatchObject({ type: expect.stringContaining('changed') })
    expect(await found('knots')).toBeUndefined()
    await bring([row('knots'), row('sails', { code: 'SEA 102' })], `?shown=${dry.digest}`)
    expect(await found('knots')).toMatchObject({
      code: 'SEA 101',
      classSections: ['01'],
      instructors: [{ name: 'Olin Reef', email: 'olin.reef@kestrelsound.example' }],
    })
  })
  it('changes only what differs, told field by field, and adds nothing twice', async () => {
    await bring([row('knots')])
    expect(await bring([row('knots')])).toMatchObject({ added: 0, changed: 0, unchanged: 1 })
    const changed = await bring([row('knots', { title: 'Knots and splices', section: '02' })])
    expect(changed.changes.map(({ field, from, to }) => [field, from, to])).toEqual([
      ['title', 'Knots', 'Knots and splices'],
      ['class sections', '01', '02'],
    ])
    expect(await found('knots')).toMatchObject({
      title: 'Knots and splices',
      classSections: ['02'],
    })
  })
  it('with rows of one course has one course with several class sections', async () => {
    await bring([row('knots'), row('knots', { section: '02' })])
    expect((await found('knots'))?.classSections).toEqual(['01', '02'])
  })
  it('leaves out courses that the platform does not have, row by row', async () => {
    const report = await bring([row('knots'), row('no-such')])
    expect(report.absent).toMatchObject([{ line: 3, platformId: 'no-such' }])
    expect([await found('knots'), await found('no-such')]).toEqual([
      expect.objectContaining({ platformId: 'knots' }),
      undefined,
    ])
  })
  it.each([
    ['a term that is not there', row('knots', { term: 'winter-1999' }), 'term'],
    ['no number of weeks', row('knots', { weeks: 'eight' }), 'weeks'],
    ['a status nobody knows', row('knots', { status: 'asleep' }), 'status'],
  ])(
    'with %s is refused by line and column, and nothing of it is brought in',
    async (_, wrong, column) => {
      const report = await bring([row('sails'), wrong])
      expect(report.errors).toMatchObject([{ line: 3, column }])
      expect(await found('sails')).toBeUndefined()
    },
  )
  it('is not brought in while the platform does not tell its courses', async () => {
    college.platform.instead('list', {
      state: 'later',
      afterSeconds: 5,
      detail: 'too many requests',
    })
    expect(await bring([row('knots')])).toMatchObject({ status: 502 })
    expect(await found('knots')).toBeUndefined()
  })
  it('does not undo what somebody decided here: a merge outranks the file', async () => {
    await bring([row('knots'), row('sails', { section: '02' })])
    const [from, into] = [await found('knots'), await found('sails')]
    const merge = (more: object) =>
      college.people.designer.post(`/api/courses/${from?.id}/into-another`, {
        into: into?.id,
        ...more,
      })
    const dry = (await merge({ dry: true })).body
    expect(dry.consequences.join()).toContain('class sections 01, 02')
    expect((await found('sails'))?.classSections).toEqual(['02'])
    expect((await merge({ shown: dry.digest })).status).toBe(200)
    expect(college.platform.courses.get('knots')?.status).toBe('merged')
    expect(college.platform.enrolled.get('sails')).toMatchObject([{ name: 'Olin Reef' }])
    const report = await bring([row('knots'), row('sails', { section: '02' })])
    expect(report.kept.map(({ field }) => field).sort()).toEqual(['class sections', 'status'])
    expect((await found('sails'))?.classSections).toEqual(['01', '02'])
    const back = (
      await college.people.designer.post(`/api/courses/${from?.id}/unmerge`, { dry: true })
    ).body
    const unmerged = await college.people.designer.post(`/api/courses/${from?.id}/unmerge`, {
      shown: back.digest,
    })
    expect(unmerged.status).toBe(200)
    expect([(await found('knots'))?.status, (await found('sails'))?.classSections]).toEqual([
      'teaching',
      ['02'],
    ])
    expect(
      (await college.people.designer.post(`/api/courses/${from?.id}/unmerge`, {})).status,
    ).toBe(404)
  })
  it('is told line by line to whoever asks so, with the report last', async () => {
    const response = await fetch(`${college.address}/api/roster?dry=1`, {
      method: 'POST',
      headers: {
        cookie: await cookie(),
        'x-wickerframe': '1',
        'content-type': 'text/csv',
        accept: 'application/x-ndjson',
      },
      body: [header, row('knots')].join('\n'),
    })
    const lines = (await response.text())
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line))
    expect(lines[0].progress.doing).toBe('reading the file')
    expect(lines.at(-1).answer).toMatchObject({ dry: true, added: 1 })
  })
})

const cookie = async (): Promise<string> => {
  return `wickerframe-session=${await beginSession(college.pool, (await college.person('designer')).id)}`
}

describe('courses that the roster names no platform course for', () => {
  const file = [
    'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status',
    ...['01', '02'].map(
      (section) =>
        `SEA 300,Sails,autumn-2026,,${section},own,olin.reef@kestrelsound.example,Olin Reef,on-campus,8,teaching`,
    ),
  ].join('\n')
  const make = (query: string) =>
    college.people.designer.send(
      `/api/courses/made?${query}&template=${exampleTemplate().key}`,
      file,
    )
  it('are made on the platform, named by the template, once however often it is asked', async () => {
    const dry = (await make('how=each&dry=1')).body
    expect(dry.made.map(({ name }: { name: string }) => name)).toEqual([
      'SEA 300 Sails · Autumn 2026',
      'SEA 300 Sails · Autumn 2026',
    ])
    const before = college.platform.courses.size
    for (let i = 0; i < 2; i++)
      expect((await make(`how=each&shown=${dry.digest}`)).body.made).toHaveLength(2)
    expect(college.platform.courses.size).toBe(before + 2)
    expect((await courses()).filter(({ code }) => code === 'SEA 300')).toHaveLength(2)
  })
  it('may be one that several class sections share', async () => {
    const { body } = await make('how=shared')
    expect(body.made).toMatchObject([{ classSections: ['01', '02'] }])
  })
})

describe('a table of values', () => {
  const set = (table: string, query = '') =>
    college.people.designer.send(`/api/courses/values${query}`, table)
  it('sets topics, rooms and people of a course, shown first', async () => {
    const table = 'course,topic 2,room\nexample,Fog signals,Quay 4\n'
    const dry = (await set(table, '?dry=1')).body
    expect(dry.changes).toMatchObject([
      { what: 'topic of week 2', from: 'Leading marks', to: 'Fog signals' },
      { what: 'room', from: '', to: 'Quay 4' },
    ])
    expect((await college.detail()).facts.topics['2']).toBe('Leading marks')
    expect((await set(table, `?shown=${dry.digest}`)).status).toBe(200)
    expect((await college.detail()).facts).toMatchObject({
      room: 'Quay 4',
      topics: { 2: 'Fog signals' },
    })
    expect((await set(table, `?shown=another`)).status).toBe(409)
  })
  it.each([
    ['a course nobody knows', 'course,room\nno-such,Quay 4\n', 'course'],
    ['a week that it does not have', 'course,topic 40\nexample,Fog\n', 'topic 40'],
  ])('with %s is refused by line and column, and sets nothing', async (_, table, column) => {
    const { body } = await set(table)
    expect(body.errors).toMatchObject([{ line: 2, column }])
    expect(body.changes).toEqual([])
  })
})

describe('next term', () => {
  it('has a course for each that was chosen, with what comes along planned, and says what is left out', async () => {
    const spring = {
      ...(await college.people.designer.get('/api/terms/autumn-2026')).body.term,
      code: 'spring-2027',
      title: 'Spring 2027',
      firstDay: '2027-01-11',
      lastDay: '2027-03-05',
      breaks: [],
      holidays: [],
    }
    await college.people.designer.post('/api/terms/spring-2027', { was: null, term: spring })
    const bare = await college.addCourse({ ...exampleCourse().course, id: 'sails' })
    const { status, body } = await college.people.designer.post('/api/next-term', {
      term: 'spring-2027',
      courses: [college.course, bare],
      carry: ['own-pages', 'answers'],
    })
    expect(status).toBe(200)
    expect(body.leftOut).toMatchObject([
      { course: bare, reason: expect.stringContaining('no template') },
    ])
    expect(body.runs).toHaveLength(1)
    const made = (await courses()).find(({ term }) => term === 'spring-2027')
    expect(made).toMatchObject({ code: 'NAV 110', classSections: ['01'] })
    await college.work()
    const plan = (
      await college.people.designer.get(`/api/rollouts/${body.runs[0]}/courses/${made?.id}`)
    ).body
    expect(plan).toMatchObject({ state: 'ready' })
    expect(
      (
        await college.people.designer.post('/api/next-term', {
          term: 'no-such',
          courses: [college.course],
          carry: [],
        })
      ).status,
    ).toBe(404)
  })
})
