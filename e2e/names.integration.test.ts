import ical from 'node-ical'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type {
  ApiProblem,
  CourseDetail,
  CourseSummary,
  NameInUse,
  NamesInUse,
  RunDetail,
  TermDetail,
  TermPreview,
} from '@wickerframe/contract'
import {
  everyModule,
  formatOf,
  judgeName,
  type Course,
  type FreeDays,
  type Term,
} from '@wickerframe/core'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let designer: Client
let courses: CourseSummary[]

beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  designer = await bed.as('designer@kestrelsound.example')
  courses = (await designer.get<CourseSummary[]>('/api/courses')).body
  await bed.startWorker()
})
afterAll(() => bed.stop())

const termNow = async () => (await designer.get<TermDetail>('/api/terms/autumn-2026')).body
const events = (text: string) =>
  Object.values(ical.sync.parseICS(text)).filter((listed) => listed.type === 'VEVENT')

describe('a term', () => {
  it('shows what an edit would change in its courses before it is saved, told once for courses alike', async () => {
    const { term, courses: inTerm } = await termNow()
    const breaks = [{ name: 'Fall Pause', first: '2026-10-12', last: '2026-10-16' }]
    const { body } = await designer.post<TermPreview>('/api/terms/autumn-2026/preview', {
      term: { ...term, breaks },
    })
    expect(body.courses).toBe(inTerm.length)
    const largest = body.changes[0]
    expect(largest?.courses.length).toBeGreaterThan(1)
    expect(
      largest?.names.some(
        (listed) => listed.from.includes('Fall Pause') || listed.to.includes('Fall Pause'),
      ),
    ).toBe(true)
    expect((await termNow()).term).toEqual(term)
    expect(
      (await designer.post<TermPreview>('/api/terms/autumn-2026/preview', { term })).body,
    ).toMatchObject({ unchanged: inTerm.length, changes: [] })
  })
  it('that would not fit its courses is not saved, and says which', async () => {
    const { term, revision } = await termNow()
    const short = {
      ...term,
      lastDay: '2026-11-20',
      otherDates: [],
      sessions: term.sessions.slice(0, 1),
    }
    expect(
      (
        await designer.post<TermPreview>('/api/terms/autumn-2026/preview', { term: short })
      ).body.changes.some((change) => change.problem !== null),
    ).toBe(true)
    const refused = await designer.post<ApiProblem>('/api/terms/autumn-2026', {
      was: revision,
      term: short,
    })
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      expect.stringContaining('it has 16 weeks'),
    ])
  })
  it('is not saved on a preview that no longer holds: a course came in since', async () => {
    const { term, revision } = await termNow()
    const edited: Term = {
      ...term,
      otherDates: [...term.otherDates, { name: 'Regatta', date: '2026-10-03' }],
    }
    const shown = (
      await designer.post<TermPreview>('/api/terms/autumn-2026/preview', { term: edited })
    ).body.digest
    const save = (wanted: Term) =>
      designer.post<ApiProblem>(`/api/terms/autumn-2026?shown=${shown}`, {
        was: revision,
        term: wanted,
      })
    const other = await save({ ...edited, title: 'Another edit than was shown' })
    expect([other.status, other.body.type]).toEqual([409, 'urn:wickerframe:problem:changed'])
    const [first] = courses
    if (!first) throw new Error('no course')
    await bed.pool.query(
      `UPDATE courses
       SET weeks = weeks - 1
       WHERE id = ?`,
      [first.id],
    )
    try {
      expect((await save(edited)).status).toBe(409)
      expect((await termNow()).term).toEqual(term)
    } finally {
      await bed.pool.query(
        `UPDATE courses
         SET weeks = weeks + 1
         WHERE id = ?`,
        [first.id],
      )
    }
    expect((await save(edited)).status).toBe(200)
    await designer.post('/api/terms/autumn-2026', { was: (await termNow()).revision, term })
  })
  it('is saved from the revision it was read at; another’s edit is not overwritten, and both are shown', async () => {
    const { term, revision } = await termNow()
    const edited: Term = {
      ...term,
      otherDates: [...term.otherDates, { name: 'Regatta', date: '2026-10-03' }],
    }
    expect(
      (await designer.post('/api/terms/autumn-2026', { was: revision, term: edited })).status,
    ).toBe(200)
    const late = await designer.post<ApiProblem>('/api/terms/autumn-2026', {
      was: revision,
      term: { ...term, title: 'Autumn' },
    })
    expect([
      late.status,
      (late.body.clash?.present as Term | undefined)?.otherDates.at(-1)?.name,
    ]).toEqual([409, 'Regatta'])
    expect(
      (await designer.post('/api/terms/autumn-2026', { was: (await termNow()).revision, term }))
        .status,
    ).toBe(200)
  })
  it('can be made anew, once', async () => {
    const { term } = await termNow()
    const next = {
      ...term,
      code: 'autumn-2027',
      title: 'Autumn 2027',
      firstDay: '2027-08-30',
      lastDay: '2027-12-17',
      breaks: [],
      holidays: [],
      otherDates: [],
      sessions: [],
    }
    expect((await designer.post('/api/terms/autumn-2027', { was: null, term: next })).status).toBe(
      200,
    )
    expect((await designer.post('/api/terms/autumn-2027', { was: null, term: next })).status).toBe(
      409,
    )
    expect((await designer.post('/api/terms/another', { was: null, term: next })).status).toBe(400)
    expect(
      (
        await designer.post<ApiProblem>('/api/terms/bad', {
          was: null,
          term: { ...next, code: 'bad', timeZone: 'Mars/Base', firstDay: '2027-02-30' },
        })
      ).body.problems?.map((problem) => problem.path),
    ).toEqual(expect.arrayContaining(['/term/timeZone', '/term/firstDay']))
  })
  it('goes out as a calendar file, and holidays come in from one', async () => {
    const out = await designer.get<string>('/api/terms/autumn-2026/calendar')
    expect(events(out.body).map((listed) => listed.summary)).toEqual(
      expect.arrayContaining(['Week 3', 'Labour Day', 'Fall Pause (week 11)']),
    )
    const read = await designer.post<FreeDays>(
      '/api/free-days?from=2026-08-31&until=2026-12-18',
      out.body,
      { 'content-type': 'text/calendar' },
    )
    expect(read.body.holidays).toContainEqual({ name: 'Labour Day', date: '2026-09-07' })
    expect(read.body.breaks).toEqual([
      { name: 'Fall Pause', first: '2026-11-09', last: '2026-11-13' },
    ])
    for (const bad of ['', 'no calendar', new Uint8Array(1000).fill(255)])
      expect(
        (
          await designer.post('/api/free-days?from=2026-08-31&until=2026-12-18', bad, {
            'content-type': 'text/calendar',
          })
        ).status,
      ).toBe(400)
    expect(
      (
        await designer.post('/api/free-days?from=soon', out.body, {
          'content-type': 'text/calendar',
        })
      ).status,
    ).toBe(400)
  })
  it('gives a course its own schedule, to its instructor as well', async () => {
    const own = await bed.as('sunniva.drake@kestrelsound.example')
    const mine = (await own.get<CourseSummary[]>('/api/courses')).body[0]
    const out = await own.get<string>(`/api/courses/${mine?.id}/calendar`)
    expect(
      events(out.body).some((listed) => listed.start.toISOString().endsWith('T02:59:00.000Z')),
    ).toBe(true)
    const other = courses.find(
      (course) =>
        !course.instructors.some((person) => person.email === 'sunniva.drake@kestrelsound.example'),
    )
    expect((await own.get(`/api/courses/${other?.id}/calendar`)).status).toBe(404)
  })
})

describe('a course’s own calendar', () => {
  const decided = {
    meetingDays: ['monday', 'wednesday'],
    units: [
      { number: 1, firstWeek: 1, lastWeek: 5 },
      { number: 2, firstWeek: 6, lastWeek: 8 },
    ],
    nextTerm: null,
  }
  const factsOf = async (client: Client, id: number) =>
    (await client.get<CourseDetail>(`/api/courses/${id}`)).body.facts

  it('is decided by its own instructor, and holds from then on', async () => {
    const own = await bed.as('sunniva.drake@kestrelsound.example')
    const id = (await own.get<CourseSummary[]>('/api/courses')).body[0]?.id ?? 0
    expect((await own.post(`/api/courses/${id}/calendar`, decided)).status).toBe(200)
    expect(await factsOf(designer, id)).toMatchObject({
      meetingDays: decided.meetingDays,
      units: decided.units,
    })
    expect((await designer.post(`/api/courses/${id}/calendar`, {})).status).toBe(200)
    expect(await factsOf(own, id)).not.toHaveProperty('units')
  })
  it('goes on in a later term, and in no earlier one', async () => {
    const id = courses[0]?.id ?? 0
    const { term } = await termNow()
    for (const [code, firstDay, lastDay] of [
      ['spring-2028', '2028-01-10', '2028-05-05'],
      ['spring-2020', '2020-01-13', '2020-05-08'],
    ])
      expect(
        (
          await designer.post(`/api/terms/${code}`, {
            was: null,
            term: {
              ...term,
              code,
              title: code,
              firstDay,
              lastDay,
              breaks: [],
              holidays: [],
              otherDates: [],
              sessions: [],
            },
          })
        ).status,
      ).toBe(200)
    expect(
      (await designer.post(`/api/courses/${id}/calendar`, { nextTerm: 'spring-2028' })).status,
    ).toBe(200)
    expect((await factsOf(designer, id)).nextTerm?.code).toBe('spring-2028')
    expect(
      (await designer.post<ApiProblem>(`/api/courses/${id}/calendar`, { nextTerm: 'spring-2020' }))
        .body.problems?.[0]?.path,
    ).toBe('/nextTerm')
    expect((await designer.post(`/api/courses/${id}/calendar`, {})).status).toBe(200)
  })
  it('is refused where it makes no sense, and from others', async () => {
    const id = courses[0]?.id ?? 0
    for (const [bad, path] of [
      [{ nextTerm: 'never' }, '/nextTerm'],
      [{ units: [{ number: 1, firstWeek: 40, lastWeek: 41 }] }, '/units/0'],
      [{ units: [decided.units[0], { ...decided.units[1], number: 1 }] }, '/units/1/number'],
      [{ meetingDays: ['someday'] }, '/meetingDays/0'],
    ] as const) {
      const refused = await designer.post<ApiProblem>(`/api/courses/${id}/calendar`, bad)
      expect([path, refused.status, refused.body.problems?.[0]?.path]).toEqual([path, 400, path])
    }
    const stranger = await bed.as('sunniva.drake@kestrelsound.example')
    const other = courses.find(
      (course) =>
        !course.instructors.some((person) => person.email === 'sunniva.drake@kestrelsound.example'),
    )
    expect((await stranger.post(`/api/courses/${other?.id}/calendar`, {})).status).toBe(404)
    expect(
      (
        await (
          await bed.as('reviewer@kestrelsound.example')
        ).post(`/api/courses/${id}/calendar`, {})
      ).status,
    ).toBe(403)
  })
})

const namesOf = async (part: string) =>
  (await designer.get<NamesInUse>(`/api/names?template=harbour-standard&part=${part}`)).body.names
const modulesOf = async (id: number) => {
  const { body } = await designer.get<CourseDetail>(`/api/courses/${id}`)
  return {
    platformId: body.platformId,
    names: ((await bed.connector(`/courses/${body.platformId}/snapshot`)) as Course).modules.map(
      (module) => module.name,
    ),
  }
}
/** The first name that is mendable, with its mended form. */
const mendable = async (): Promise<{ listed: NameInUse; name: string }> => {
  for (const listed of await namesOf('week')) {
    const { mended } = judgeName(formatOf('Week {week} · {dates} · {topic}'), listed.name, {
      places: [listed.values],
      near: listed.near,
      classSections: listed.classSections,
    })
    if (mended !== null && mended !== listed.name) return { listed, name: mended }
  }
  throw new Error('every name of the demo is right')
}
const plan = async (use: NameInUse, name: string) =>
  (
    await designer.post<{ run: number }>('/api/renames', {
      names: [{ course: use.course, what: use.what, id: use.id, was: use.name, name }],
    })
  ).body.run
const runOf = async (id: number) => (await designer.get<RunDetail>(`/api/runs/${id}`)).body

describe('names in use', () => {
  it('are told with what they should say where they stand', async () => {
    const weeks = await namesOf('week')
    expect(weeks.length).toBeGreaterThan(100)
    expect(
      weeks.every((week) => typeof week.values.week === 'number' && week.what === 'module'),
    ).toBe(true)
    expect(
      (await namesOf('course')).every(
        (listed) => listed.what === 'course' && listed.values.code === listed.code,
      ),
    ).toBe(true)
    expect((await namesOf('quiz'))[0]?.what).toBe('item')
    expect(await namesOf('no-such-part')).toEqual([])
    expect((await designer.get('/api/names?template=../x&part=week')).status).toBe(400)
  })
})

describe('planned names', () => {
  it('are written only after approval, and taken back by a plan of their own', async () => {
    const { listed, name } = await mendable()
    const run = await plan(listed, name)
    expect(await runOf(run)).toMatchObject({
      kind: 'renames',
      state: 'planned',
      tasks: [{ renames: [{ was: listed.name, name }] }],
    })
    // What came later is done, and this is not.
    const later = await designer.post<{ run: number }>(`/api/courses/${listed.course}/check`, {})
    await until(
      () => runOf(later.body.run),
      (detail) => detail.state === 'done',
    )
    expect((await modulesOf(listed.course)).names).toContain(listed.name)
    await designer.post(`/api/runs/${run}/approve`)
    await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    expect((await modulesOf(listed.course)).names).toContain(name)
    const back = await plan({ ...listed, name }, listed.name)
    await designer.post(`/api/runs/${back}/approve`)
    await until(
      () => runOf(back),
      (detail) => detail.state === 'done',
    )
    expect((await modulesOf(listed.course)).names).toContain(listed.name)
  })
  it('leave alone what somebody renamed meanwhile, and say so', async () => {
    const { listed, name } = await mendable()
    const run = await plan({ ...listed, name: 'The name it bore yesterday' }, name)
    await designer.post(`/api/runs/${run}/approve`)
    const done = await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    expect(done.tasks[0]?.message).toContain('1 left as they are')
    expect((await modulesOf(listed.course)).names).toContain(listed.name)
  })
  it('are given exactly once when the platform’s answer is lost', async () => {
    const { listed, name } = await mendable()
    await bed.misbehave('lost-answer', 1)
    const run = await plan(listed, name)
    await designer.post(`/api/runs/${run}/approve`)
    const done = await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    expect(done.tasks[0]).toMatchObject({
      state: 'done',
      message: expect.stringMatching(/^1 name given; read again: \d+ pages as they were$/),
    })
    const course = (await bed.connector(
      `/courses/${(await modulesOf(listed.course)).platformId}/snapshot`,
    )) as Course
    expect(everyModule(course.modules).filter((module) => module.name === name)).toHaveLength(1)
  })
  it('that are dropped change nothing', async () => {
    const { listed, name } = await mendable()
    const run = await plan(listed, name)
    await designer.post(`/api/runs/${run}/cancel`)
    await designer.post(`/api/runs/${run}/approve`)
    expect(await runOf(run)).toMatchObject({ state: 'cancelled', counts: { cancelled: 1 } })
    expect((await modulesOf(listed.course)).names).toContain(listed.name)
  })
  it('are refused where they make no sense', async () => {
    const listed = { course: courses[0]?.id ?? 0, what: 'module', id: 'm', was: 'a', name: 'b' }
    for (const [names, status] of [
      [[], 400],
      [[{ ...listed, name: '' }], 400],
      [[{ ...listed, what: 'page' }], 400],
      [[{ ...listed, course: 999_999 }], 404],
      [[{ ...listed, name: 'a' }], 409],
      [[{ ...listed, name: 'x'.repeat(2001) }], 400],
    ] as const)
      expect([status, (await designer.post('/api/renames', { names })).status]).toEqual([
        status,
        status,
      ])
  })
})

describe('names that clash across courses', () => {
  it('are found when two courses of a term bear the same', async () => {
    const [first, second] = (await namesOf('course')).filter((listed) => listed.name.length > 0)
    if (!first || !second) throw new Error('the demo has too few courses')
    const run = await plan(second, first.name)
    await designer.post(`/api/runs/${run}/approve`)
    await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    const check = (await designer.post<{ run: number }>(`/api/courses/${second.course}/check`, {}))
      .body.run
    await until(
      () => runOf(check),
      (detail) => detail.state === 'done',
    )
    const detail = (await designer.get<CourseDetail>(`/api/courses/${second.course}`)).body
    expect(
      detail.result?.findings
        .filter((finding) => finding.rule === 'name-clash')
        .map((finding) => finding.message),
    ).toEqual([expect.stringContaining(`is also that of ${first.code} ${first.title}`)])
  })
})
