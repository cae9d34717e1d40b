import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type {
  Conformance,
  CourseDetail,
  CourseSummary,
  MendableRule,
  RunDetail,
} from '@wickerframe/contract'
import {
  everyCourseItem,
  type Change,
  type Course,
  type Finding,
  type FindingPlace,
} from '@wickerframe/core'
import { runOf, workUntil } from './rollouts.ts'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let designer: Client
let instructor: Client
let reviewer: Client

beforeAll(async () => {
  bed = await startTestBed({ courses: 24 })
  designer = await bed.as('designer@kestrelsound.example')
  instructor = await bed.as('sunniva.drake@kestrelsound.example')
  reviewer = await bed.as('reviewer@kestrelsound.example')
})
afterAll(() => bed.stop())

const detailOf = async (id: number, client = designer, asOf = ''): Promise<CourseDetail> =>
  (await client.get<CourseDetail>(`/api/courses/${id}${asOf}`)).body
const courses = async (client = designer) =>
  (await client.get<CourseSummary[]>('/api/courses')).body
const snapshot = async (course: CourseSummary): Promise<Course> =>
  (await bed.connector(`/courses/${course.platformId}/snapshot`)) as Course
const placesOf = (detail: CourseDetail, rule: string): FindingPlace[] =>
  detail.result?.findings
    .filter((finding) => finding.rule === rule)
    .flatMap((finding) => finding.places) ?? []
const edit = async (course: CourseSummary, key: string, changes: Change[]): Promise<void> => {
  const { revision } = await snapshot(course)
  const answer = await fetch(
    `${bed.platformAddress}/connector/v1/courses/${course.platformId}/change-sets`,
    {
      method: 'POST',
      headers: {
        authorization: bed.authorization,
        'content-type': 'application/json',
        'idempotency-key': key,
      },
      body: JSON.stringify({ expectedRevision: revision, changes }),
    },
  )
  if (!answer.ok) throw new Error(await answer.text())
}
const readAgain = async (client: Client, id: number): Promise<RunDetail> =>
  workUntil(
    bed,
    client,
    (await client.post<{ run: number }>(`/api/courses/${id}/check`, {})).body.run,
    'done',
  )
const withFinding = async (
  rule: string,
): Promise<{ course: CourseSummary; detail: CourseDetail }> => {
  for (const course of await courses()) {
    const detail = await detailOf(course.id)
    if (placesOf(detail, rule).length > 0) return { course, detail }
  }
  throw new Error(`no course of the demo has a finding of ${rule}`)
}

describe('a waiver', () => {
  it('disowns what was told before it for every date: no list, weave or search shows what the course’s own page does not', async () => {
    const { course, detail } = await withFinding('fixed-text-altered')
    const later = '?asOf=2026-11-20'
    // Looked at for a later date, so that an answer for then is kept as well.
    const before = await detailOf(course.id, designer, later)
    const fingerprint = placesOf(detail, 'fixed-text-altered')[0]?.fingerprint
    await designer.post(`/api/courses/${course.id}/waivers`, {
      fingerprints: [fingerprint],
      reason: 'Agreed',
    })
    const listed = async () =>
      (await designer.get<CourseSummary[]>(`/api/courses${later}`)).body.find(
        ({ id }) => id === course.id,
      )?.check
    const stale = before.result?.counts.openMusts
    expect((await listed())?.counts.openMusts ?? null).not.toBe(stale)
    const weave = (await designer.get<Conformance>(`/api/conformance${later}`)).body
    expect(weave.rows.filter((row) => row.id === course.id)).toEqual([])
    expect(weave.unchecked).toBeGreaterThan(0)
    const now = await detailOf(course.id, designer, later)
    expect((await listed())?.counts).toEqual(now.result?.counts)
    const [waiver] = now.care.waivers
    await designer.post(`/api/courses/${course.id}/waivers/${waiver?.id}`, { decision: 'withdraw' })
    await bed.pool.query('DELETE FROM waivers')
  })
  it('takes a requirement out of the count and stays visible; it is withdrawn again', async () => {
    const { course, detail } = await withFinding('fixed-text-altered')
    const place = placesOf(detail, 'fixed-text-altered')[0]
    const given = await designer.post(`/api/courses/${course.id}/waivers`, {
      fingerprints: [place?.fingerprint],
      reason: 'Agreed with the dean',
      until: '2026-12-18',
    })
    expect(given.status).toBe(200)
    const waived = await detailOf(course.id)
    expect(waived.result?.counts.openMusts).toBe((detail.result?.counts.openMusts ?? 0) - 1)
    expect(waived.result?.counts.waived).toBe(1)
    expect(placesOf(waived, 'fixed-text-altered')[0]?.waived).toMatchObject({
      reason: 'Agreed with the dean',
      until: '2026-12-18',
      changedSince: false,
    })
    // After its last day it excuses nothing any more.
    expect((await detailOf(course.id, designer, '?asOf=2026-12-19')).result?.counts.waived).toBe(0)
    const id = waived.care.waivers[0]?.id
    expect(
      (await designer.post(`/api/courses/${course.id}/waivers/${id}`, { decision: 'withdraw' }))
        .status,
    ).toBe(200)
    expect((await detailOf(course.id)).result?.counts).toEqual(detail.result?.counts)
    expect(
      (await designer.post(`/api/courses/${course.id}/waivers/${id}`, { decision: 'withdraw' }))
        .status,
    ).toBe(409)
  })
  it('is asked for by an instructor, and given by a designer only', async () => {
    const own = (await courses(instructor))[0]
    if (!own) throw new Error('the instructor has a course')
    const item = everyCourseItem(await snapshot(own)).find(
      (placed) => placed.item.recordedAs === undefined && /Week 2 checklist/.test(placed.item.name),
    )?.item
    await edit(own, 'hide-a-checklist', [
      { change: 'set-item', id: item?.id ?? '', fields: { published: false } },
    ])
    await readAgain(instructor, own.id)
    const place = placesOf(await detailOf(own.id, instructor), 'must-part-hidden')[0]
    expect(
      (
        await instructor.post(`/api/courses/${own.id}/waivers`, {
          fingerprints: [place?.fingerprint],
          reason: 'We do it on paper',
        })
      ).status,
    ).toBe(200)
    const asked = await detailOf(own.id)
    expect([asked.result?.counts.waived, asked.care.waivers[0]?.state]).toEqual([0, 'asked'])
    const path = `/api/courses/${own.id}/waivers/${asked.care.waivers[0]?.id}`
    expect((await instructor.post(path, { decision: 'approve' })).status).toBe(403)
    expect((await reviewer.post(path, { decision: 'approve' })).status).toBe(403)
    expect((await designer.post(path, { decision: 'approve' })).status).toBe(200)
    expect((await detailOf(own.id)).result?.counts.waived).toBe(1)
  })
  it('is refused with a reason where there is nothing to waive', async () => {
    const [course] = await courses()
    const bad = async (body: object) =>
      (await designer.post<{ detail: string }>(`/api/courses/${course?.id}/waivers`, body)).status
    expect(await bad({ fingerprints: ['nothing'], reason: 'x' })).toBe(404)
    expect(await bad({ fingerprints: ['nothing'], reason: '' })).toBe(400)
    expect(await bad({ fingerprints: ['nothing'], reason: 'x', until: '2020-01-01' })).toBe(400)
    expect(await bad({ fingerprints: ['x'.repeat(10_000)], reason: 'x' })).toBe(400)
  })
})

describe('a join by hand', () => {
  it('outranks recorded identity and holds in later checks; unjoined, the two are never paired; forgotten, all is as before', async () => {
    const [course] = await courses()
    if (!course) throw new Error('a course')
    const before = await detailOf(course.id)
    const pairs =
      before.result?.pairs.filter((pair) => pair.expected.startsWith('week-overview@')) ?? []
    const [one, other] = [pairs[0], pairs[1]]
    if (!one || !other) throw new Error('two overviews')
    const say = (what: string, expected: string, found: string) =>
      designer.post(`/api/courses/${course.id}/joins`, { what, expected, found })
    expect((await say('join', one.expected, other.found)).status).toBe(200)
    const joined = await detailOf(course.id)
    expect(joined.result?.pairs.find((pair) => pair.expected === one.expected)).toMatchObject({
      found: other.found,
      by: 'hand',
    })
    await readAgain(designer, course.id)
    expect(
      (await detailOf(course.id)).result?.pairs.find((pair) => pair.expected === one.expected)
        ?.found,
    ).toBe(other.found)
    await say('forget', one.expected, other.found)
    expect((await say('unjoin', one.expected, one.found)).status).toBe(200)
    expect(
      (await detailOf(course.id)).result?.pairs.some(
        (pair) => pair.expected === one.expected && pair.found === one.found,
      ),
    ).toBe(false)
    await say('forget', one.expected, one.found)
    expect((await detailOf(course.id)).result?.pairs).toEqual(before.result?.pairs)
  })
  it('is refused for what is not there, and by who may not', async () => {
    const [course] = await courses()
    const say = (client: Client, body: object) =>
      client.post(`/api/courses/${course?.id}/joins`, body)
    expect(
      (await say(designer, { what: 'join', expected: 'no-part', found: 'no-item' })).status,
    ).toBe(400)
    expect(
      (await say(designer, { what: 'forget', expected: 'no-part', found: 'no-item' })).status,
    ).toBe(404)
    expect((await say(designer, { what: 'marry', expected: 'a', found: 'b' })).status).toBe(400)
    expect((await say(instructor, { what: 'join', expected: 'a', found: 'b' })).status).toBe(403)
  })
})

describe('follow-up', () => {
  it('is raised, promised, answered, and found mended by the next check', async () => {
    const { course, detail } = await withFinding('staff-part-visible')
    const place = placesOf(detail, 'staff-part-visible')[0]
    const fingerprints = [place?.fingerprint ?? '']
    const put = (body: object, client = designer) =>
      client.post(`/api/courses/${course.id}/follow-ups`, body)
    expect((await put({ does: 'answer', fingerprints, answer: 'Not yet' })).status).toBe(409)
    expect((await put({ does: 'raise', fingerprints, note: 'Please hide it' })).status).toBe(200)
    expect((await detailOf(course.id)).care.followUps[0]).toMatchObject({
      state: 'raised',
      owner: course.instructors[0]?.email,
      note: 'Please hide it',
    })
    expect((await put({ does: 'promise', fingerprints, by: '2026-09-01' })).status).toBe(400)
    expect(
      (await put({ does: 'promise', fingerprints, by: '2026-09-20', answer: 'On Sunday' })).status,
    ).toBe(200)
    expect((await put({ does: 'answer', fingerprints, answer: 'Done' })).status).toBe(200)
    expect((await put({ does: 'raise', fingerprints }, reviewer)).status).toBe(403)
    await edit(course, 'hide-the-notes', [
      { change: 'set-item', id: place?.place.foundId ?? '', fields: { published: false } },
    ])
    await readAgain(designer, course.id)
    const after = await detailOf(course.id)
    expect(placesOf(after, 'staff-part-visible')).toEqual([])
    expect(after.care.followUps[0]?.state).toBe('mended')
    expect(
      after.care.since?.gone.some((message) => message.includes('Notes for the instructor')),
    ).toBe(true)
    // Found again, it is raised again.
    await edit(course, 'show-the-notes', [
      { change: 'set-item', id: place?.place.foundId ?? '', fields: { published: true } },
    ])
    await readAgain(designer, course.id)
    const again = await detailOf(course.id)
    expect([
      again.care.followUps[0]?.state,
      again.care.since?.fresh.includes(fingerprints[0] ?? ''),
    ]).toEqual(['raised', true])
  })
})

describe('mends', () => {
  it('are planned in many courses, written nowhere before they are approved, and then hold', async () => {
    const rules = (await designer.get<MendableRule[]>('/api/mends')).body
    const rule = rules.find((rule) => rule.rule === 'guidance-visible')
    if (!rule) throw new Error('the demo has notes left standing')
    const before = await snapshot(
      (await courses()).find((course) => course.id === rule.courses[0]?.course) as CourseSummary,
    )
    const { run } = (
      await designer.post<{ run: number }>('/api/mends', {
        courses: rule.courses.map(({ course, mends }) => ({
          course,
          mends: mends.map(({ fingerprint, digest }) => ({ fingerprint, digest })),
        })),
      })
    ).body
    expect((await runOf(designer, run)).state).toBe('planned')
    expect((await runOf(designer, run)).tasks[0]?.mends[0]?.changes.join()).toContain('The text of')
    expect(
      (
        await snapshot(
          (await courses()).find(
            (course) => course.id === rule.courses[0]?.course,
          ) as CourseSummary,
        )
      ).revision,
    ).toBe(before.revision)
    await designer.post(`/api/runs/${run}/approve`, {})
    const done = await workUntil(bed, designer, run, 'done')
    expect(done.tasks.map((task) => task.state)).toEqual(rule.courses.map(() => 'done'))
    for (const { course } of rule.courses)
      expect(
        placesOf(await detailOf(course), 'guidance-visible').filter((place) => place.mend),
      ).toEqual([])
    // What instructors wrote stands: only the notes are gone.
    const after = await snapshot(
      (await courses()).find((course) => course.id === rule.courses[0]?.course) as CourseSummary,
    )
    const pages = new Map(everyCourseItem(after).map(({ item }) => [item.id, item.html]))
    const changed = everyCourseItem(before).filter(({ item }) => pages.get(item.id) !== item.html)
    expect(changed.length).toBeGreaterThan(0)
    for (const { item } of changed) {
      const gone = (item.html ?? '').length - (pages.get(item.id) ?? '').length
      expect(
        item.html?.replace(
          /<(div|aside|section)\b[^>]*data-wicker-block="advice"[^>]*>[\s\S]*?<\/\1>/,
          '',
        ).length,
      ).toBe((item.html ?? '').length - gone)
    }
  })
  it('of one page hold together, and leave what was changed since they were chosen', async () => {
    const { course, detail } = await withFinding('due-missing')
    const places =
      detail.result?.findings.flatMap((finding: Finding) =>
        finding.places.filter((place) => place.mend),
      ) ?? []
    const due = placesOf(detail, 'due-missing')[0]
    expect(places.length).toBeGreaterThan(0)
    await edit(course, 'due-by-hand', [
      {
        change: 'set-item',
        id: due?.place.foundId ?? '',
        fields: { dueAt: '2026-09-20T20:00:00Z' },
      },
    ])
    const { run } = (
      await designer.post<{ run: number }>(`/api/courses/${course.id}/mends`, {
        mends: places.map(({ fingerprint, digest }) => ({ fingerprint, digest })),
      })
    ).body
    const done = await workUntil(bed, designer, run, 'done')
    expect(done.tasks[0]?.message).toContain('left as they are')
    expect(
      everyCourseItem(await snapshot(course)).find(({ item }) => item.id === due?.place.foundId)
        ?.item.dueAt,
    ).toBe('2026-09-20T20:00:00Z')
  })
  it('are applied exactly once when the platform loses its answer', async () => {
    const { course, detail } = await withFinding('home-page-set')
    const place = placesOf(detail, 'home-page-set')[0]
    await bed.misbehave('lost-answer', 1)
    const { run } = (
      await designer.post<{ run: number }>(`/api/courses/${course.id}/mends`, {
        mends: [{ fingerprint: place?.fingerprint, digest: place?.digest }],
      })
    ).body
    const worker = await bed.startWorker()
    const done = await until(
      () => runOf(designer, run),
      ({ state }) => state === 'done',
    )
    await worker.stop()
    expect(done.tasks[0]?.state).toBe('done')
    expect(placesOf(await detailOf(course.id), 'home-page-set')).toEqual([])
  })
  it('are refused for courses of others, for what is not open, and for nonsense', async () => {
    const own = (await courses(instructor)).map((course) => course.id)
    const other = (await courses()).find((course) => !own.includes(course.id))
    expect(
      (
        await instructor.post(`/api/courses/${other?.id}/mends`, {
          mends: [{ fingerprint: 'a', digest: 'b' }],
        })
      ).status,
    ).toBe(404)
    expect((await instructor.post('/api/mends', { courses: [] })).status).toBe(403)
    expect((await designer.post('/api/mends', { courses: [] })).status).toBe(400)
    expect(
      (
        await designer.post('/api/mends', {
          courses: [{ course: 999_999, mends: [{ fingerprint: 'a', digest: 'b' }] }],
        })
      ).status,
    ).toBe(404)
    expect(
      (
        await designer.post(`/api/courses/${other?.id}/mends`, {
          mends: [{ fingerprint: 'a', digest: 'b' }],
        })
      ).status,
    ).toBe(409)
    expect((await designer.get('/api/mends?rule=no-such-rule')).status).toBe(400)
  })
})

describe('a page with its departures', () => {
  it('is told block by block, and shown with nothing in it that runs', async () => {
    const { course, detail } = await withFinding('fixed-text-altered')
    const id = placesOf(detail, 'fixed-text-altered')[0]?.place.foundId ?? ''
    const item = everyCourseItem(await snapshot(course)).find(
      (placed) => placed.item.id === id,
    )?.item
    await edit(course, 'hostile-page', [
      {
        change: 'set-item',
        id,
        fields: {
          html: `${item?.html ?? ''}<script>alert(1)</script><p onclick="alert(2)">Own words</p><iframe src="https://evil.example/"></iframe>`,
        },
      },
    ])
    await readAgain(designer, course.id)
    const told = (
      await designer.get<{ blocks: { state: string; difference: unknown[] }[] }>(
        `/api/courses/${course.id}/items/${encodeURIComponent(id)}/difference`,
      )
    ).body
    expect(told.blocks[0]?.state).toBe('altered')
    expect(told.blocks[0]?.difference.length).toBeGreaterThan(1)
    const page = await designer.get<string>(
      `/api/courses/${course.id}/items/${encodeURIComponent(id)}/marked`,
    )
    expect(page.body).toContain('Changed from what the template says')
    expect(page.body).toContain('Own words')
    expect(page.body).not.toMatch(/<script|onclick|<iframe/)
    expect((await designer.get(`/api/courses/${course.id}/items/none/difference`)).status).toBe(404)
  })
})
