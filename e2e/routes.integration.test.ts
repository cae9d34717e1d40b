import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type {
  Conformance,
  CrossingEvidence,
  CourseDetail,
  CourseSummary,
  Message,
  RunDetail,
} from '@wickerframe/contract'
import type { Facts, Outcome, Term } from '@wickerframe/core'
import { demoToday } from '@wickerframe/demo'
import { workUntil } from './rollouts.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let designer: Client
let instructor: Client
let reviewer: Client
let courses: CourseSummary[]
let own: CourseSummary[]

const detailOf = async ({ id }: { id: number }, client = designer): Promise<CourseDetail> =>
  (await client.get<CourseDetail>(`/api/courses/${id}`)).body

beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  designer = await bed.as('designer@kestrelsound.example')
  instructor = await bed.as('sunniva.drake@kestrelsound.example')
  reviewer = await bed.as('reviewer@kestrelsound.example')
  courses = (await designer.get<CourseSummary[]>('/api/courses')).body
  own = (await instructor.get<CourseSummary[]>('/api/courses')).body
})
afterAll(() => bed.stop())

describe('terms', () => {
  it('are told to everybody who signs in, with the days they run', async () => {
    const { status, body } = await instructor.get<Term[]>('/api/terms')
    expect(status).toBe(200)
    const now = body.find((term) => term.firstDay <= demoToday && demoToday <= term.lastDay)
    expect(now).toMatchObject({ code: 'autumn-2026', timeZone: 'America/Halifax' })
  })
})

describe('the facts of a course', () => {
  it('are those its page has, and somebody else’s are not told to an instructor', async () => {
    const [mine] = own
    const other = courses.find((course) => !own.some(({ id }) => id === course.id))
    if (!mine || !other) throw new Error('the demo has courses of others')
    const facts = await instructor.get<Facts>(`/api/courses/${mine.id}/facts`)
    expect(facts.body).toEqual((await detailOf(mine)).facts)
    expect((await instructor.get(`/api/courses/${other.id}/facts`)).status).toBe(404)
    expect((await instructor.get('/api/courses/none/facts')).status).toBe(404)
  })
})

describe('conformance', () => {
  it('counts the courses that teach, and those among them that were checked', async () => {
    const { status, body } = await reviewer.get<Conformance>('/api/conformance')
    expect(status).toBe(200)
    const teaching = courses.filter((course) => course.status === 'teaching')
    expect(body.totals.courses).toBe(teaching.length)
    expect(body.rows.length + body.unchecked).toBe(teaching.length)
    const columns = body.groups.flatMap((group) => group.columns)
    expect(new Set(columns.map(({ key }) => key)).size).toBe(columns.length)
    for (const { strands, openMusts } of body.rows) {
      expect(strands).toMatch(new RegExp(`^[mXsw?n.]{${columns.length}}$`))
      expect(strands.includes('X')).toBe(openMusts > 0)
    }
  })
  it('tells what is open at a crossing, to whom the course is shown', async () => {
    const { body } = await reviewer.get<Conformance>('/api/conformance')
    const columns = body.groups.flatMap((group) => group.columns)
    const row = body.rows.find(({ strands }) => strands.includes('X'))
    const column = columns[row?.strands.indexOf('X') ?? -1]?.key ?? ''
    const at = `/api/courses/${row?.id}/crossing?column=${encodeURIComponent(column)}`
    const { findings } = (await reviewer.get<CrossingEvidence>(at)).body
    expect(findings.map(({ strength }) => strength)).toContain('must')
    const nothing = await reviewer.get<CrossingEvidence>(
      `/api/courses/${row?.id}/crossing?column=week:99`,
    )
    expect(nothing.body.findings).toEqual([])
  })
  it('is not told to instructors, and asks for a day that exists', async () => {
    expect((await instructor.get('/api/conformance')).status).toBe(403)
    const wrong = await reviewer.get<{ detail: string }>('/api/conformance?asOf=2026-02-30')
    expect(wrong.status).toBe(400)
    expect(wrong.body.detail).toMatch(/asOf.*2026-02-30/)
  })
})

describe('a course put under a version for checking', () => {
  const put = (course: CourseSummary, version: number) =>
    designer.post<{ detail: string }>(`/api/courses/${course.id}/version`, {
      template: 'harbour-standard',
      version,
    })
  it('is judged by it from then on', async () => {
    const free = courses.find((course) => course.template === null)
    if (!free) throw new Error('the demo has courses under no template')
    expect((await put(free, 1)).status).toBe(200)
    const now = await detailOf(free)
    expect(now.template).toMatchObject({ key: 'harbour-standard', version: 1 })
    expect(now.state).toBe('checked-only')
  })
  it('is refused for one that was deployed to, and for a version that is not there', async () => {
    const deployed = courses.find((course) => course.state === 'deployed')
    const free = courses.find((course) => course.state !== 'deployed')
    if (!deployed || !free) throw new Error('the demo has both')
    expect((await put(deployed, 1)).status).toBe(409)
    expect((await put(free, 99)).status).toBe(404)
  })
})

describe('a message', () => {
  it('is marked as read by whom it is to, and by nobody else', async () => {
    const [inserted] = await bed.pool.query(
      `INSERT INTO messages (recipient, run_id, subject, body, sent_at)
       VALUES ('sunniva.drake@kestrelsound.example', NULL, 'Week 3', 'is ready', NOW(3))`,
    )
    const id = (inserted as { insertId: number }).insertId
    const read = async () =>
      (await instructor.get<Message[]>('/api/messages')).body.find((message) => message.id === id)
        ?.read
    expect(await read()).toBe(false)
    expect((await reviewer.post(`/api/messages/${id}/read`)).status).toBe(404)
    expect(await read()).toBe(false)
    expect((await instructor.post(`/api/messages/${id}/read`)).status).toBe(200)
    expect(await read()).toBe(true)
  })
})

describe('a run that was paused', () => {
  it('goes on when it is told to, to its end', async () => {
    const { body } = await designer.post<{ run: number }>('/api/checks', {
      courses: courses.map((course) => course.id),
    })
    const run = () => designer.get<RunDetail>(`/api/runs/${body.run}`).then((answer) => answer.body)
    expect((await designer.post(`/api/runs/${body.run}/pause`)).status).toBe(200)
    expect((await run()).state).toBe('paused')
    expect((await run()).counts.done).toBe(0)
    expect((await designer.post(`/api/runs/${body.run}/resume`)).status).toBe(200)
    const ended = await workUntil(bed, designer, body.run, 'done')
    expect(ended.counts.done).toBe(courses.length)
  })
  it('is not there to go on with for an instructor, nor where there is none', async () => {
    expect((await instructor.post('/api/runs/1/resume')).status).toBe(403)
    expect((await designer.post('/api/runs/999999/resume')).status).toBe(404)
  })
})

describe('what somebody gives their word for', () => {
  const attest = (course: CourseSummary, { fingerprint }: Outcome, takeBack = false) =>
    designer.post<{ detail: string }>(`/api/courses/${course.id}/attestations`, {
      fingerprints: [fingerprint],
      words: 'I looked at it in the platform.',
      takeBack,
    })
  it('counts as met, until the word is taken back', async () => {
    for (const course of courses) {
      const outcome = (await detailOf(course)).result?.outcomes.find(
        (outcome) => outcome.outcome === 'cannot-tell',
      )
      if (!outcome) continue
      const by = async () =>
        (await detailOf(course)).result?.outcomes.find(
          ({ fingerprint }) => fingerprint === outcome.fingerprint,
        )?.attestedBy
      expect((await attest(course, outcome)).status).toBe(200)
      expect(await by()).toBeDefined()
      expect((await attest(course, outcome, true)).status).toBe(200)
      expect(await by()).toBeUndefined()
      expect((await attest(course, outcome, true)).status).toBe(404)
      return
    }
    throw new Error('no course of the demo has what a snapshot cannot tell')
  })
  it('is not taken for what the snapshot shows to be wrong', async () => {
    for (const course of courses) {
      const outcome = (await detailOf(course)).result?.outcomes.find(
        (outcome) => outcome.outcome === 'failed' && outcome.rule !== 'tool-not-attested',
      )
      if (!outcome) continue
      const { status, body } = await attest(course, outcome)
      expect(status).toBe(409)
      expect(body.detail).toContain('waiver')
      return
    }
    throw new Error('no course of the demo has anything wrong')
  })
})

describe('a part that is left out on purpose', () => {
  const say = (course: CourseSummary, instance: string, leftOut: boolean) =>
    designer.post(`/api/courses/${course.id}/not-this-week`, { instance, leftOut })
  it('is remembered with the course until it is wanted again', async () => {
    for (const course of courses) {
      const missing = (await detailOf(course)).result?.missing[0]
      if (missing === undefined) continue
      expect((await say(course, missing, true)).status).toBe(200)
      expect((await detailOf(course)).care.notThisWeek).toContain(missing)
      expect((await say(course, missing, false)).status).toBe(200)
      expect((await detailOf(course)).care.notThisWeek).not.toContain(missing)
      return
    }
    throw new Error('no course of the demo lacks a part')
  })
  it('cannot be one that stands in the course', async () => {
    const deployed = courses.find((course) => course.state === 'deployed')
    if (!deployed) throw new Error('the demo has deployed courses')
    const there = (await detailOf(deployed)).result?.pairs[0]?.expected ?? ''
    expect((await say(deployed, there, true)).status).toBe(409)
  })
})

describe('a contributor', () => {
  const courseOf = async (client: Client) =>
    (await client.get<CourseSummary[]>('/api/courses')).body
  it('sees the courses under their templates and what is built on those, and no others', async () => {
    const contributor = await bed.as('contributor@kestrelsound.example')
    expect(await courseOf(contributor)).toEqual([])
    const free = (await courseOf(designer)).filter((course) => course.state !== 'deployed')
    const [first, second] = free
    if (!first || !second) throw new Error('the demo has courses that nothing was deployed to')
    const put = (course: CourseSummary, template: string) =>
      designer.post(`/api/courses/${course.id}/version`, { template, version: 1 })
    expect((await put(first, 'navigation-programme')).status).toBe(200)
    // The layer of one course stands on the programme’s.
    expect((await put(second, 'nav-110')).status).toBe(200)
    const seen = (await courseOf(contributor)).map((course) => course.id)
    expect(seen.sort()).toEqual([first.id, second.id].sort())
    const other = courses.find((course) => !seen.includes(course.id))
    expect((await contributor.get(`/api/courses/${other?.id}`)).status).toBe(404)
    expect((await contributor.get(`/api/courses/${first.id}`)).status).toBe(200)
  })
  it('follows runs whose courses they all see, and no others', async () => {
    const contributor = await bed.as('contributor@kestrelsound.example')
    const all = (await designer.get<RunDetail[]>('/api/rollouts')).body
    expect(all.length).toBeGreaterThan(0)
    expect((await contributor.get<RunDetail[]>('/api/rollouts')).body).toEqual([])
    expect((await contributor.get(`/api/runs/${all[0]?.id}`)).status).toBe(404)
    expect((await contributor.get(`/api/rollouts/${all[0]?.id}/shapes`)).status).toBe(404)
    const [own] = await courseOf(contributor)
    const { body } = await designer.post<{ run: number }>('/api/checks', { courses: [own?.id] })
    expect((await contributor.get(`/api/runs/${body.run}`)).status).toBe(200)
  })
})
