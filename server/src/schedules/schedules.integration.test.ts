import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Schedule } from '@wickerframe/contract'
import { exampleCourse, exampleFacts, exampleTemplate } from '@wickerframe/core/testing'
import { setRoles } from '../people/people.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { keepSchedules } from './keepSchedules.ts'

const { term, department } = exampleFacts()
let college: PrivateCollege
let designer: Client
beforeAll(async () => {
  college = await startPrivateCollege()
  const person = await college.person('designer')
  designer = await college.as(person)
  await college.release(exampleTemplate(), person)
  for (const [id, more] of [
    ['one', {}],
    ['two', {}],
    ['other', { department: 'GAL' }],
    ['away', { status: 'set-aside' }],
  ] as const) {
    const { course } = exampleCourse()
    course.id = id
    await college.addCourse(course, more)
  }
})
afterAll(() => college.stop())
beforeEach(async () => {
  await college.work()
  await college.pool.query('DELETE FROM schedules')
})

const add = (more: object = {}, client = designer) =>
  client.post('/api/schedules', { pattern: '0 6 * * *', ...more })
const schedules = async (): Promise<Schedule[]> => (await designer.get('/api/schedules')).body
const runsBegun = async (): Promise<number> =>
  (
    await college.rows(`SELECT id
      FROM runs
      WHERE created_by = 'the schedule'`)
  ).length
/** How many runs are begun while the clock goes to this instant. */
const begunBy = async (...instants: string[]): Promise<number[]> => {
  const counts: number[] = []
  for (const now of instants) {
    const before = await runsBegun()
    await keepSchedules(college.pool, now)
    counts.push((await runsBegun()) - before)
    await college.work()
  }
  return counts
}

describe('a schedule', () => {
  it('is about the courses that teach, in all or of a term or department, and says when it comes next', async () => {
    await add()
    await add({ term: term.code })
    await add({ department })
    await add({ department: 'GAL' })
    expect((await schedules()).map(({ courses, nextAt }) => [courses, nextAt])).toEqual(
      [3, 3, 2, 1].map((courses) => [courses, '2026-09-17T09:00:00Z']),
    )
  })
  it('has courses read and checked when its time has come, and not before', async () => {
    await add({ department })
    expect(
      await begunBy(
        '2026-09-17T08:59:59.000Z',
        '2026-09-17T09:00:00.000Z',
        '2026-09-17T09:00:15.000Z',
        '2026-09-18T09:00:00.000Z',
      ),
    ).toEqual([0, 1, 0, 1])
    const [schedule] = await schedules()
    expect(schedule).toMatchObject({ nextAt: '2026-09-19T09:00:00Z', lastSaid: '' })
    const { body } = await designer.get(`/api/runs/${schedule?.lastRun}`)
    expect(body).toMatchObject({ kind: 'check', state: 'done', counts: { done: 2, failed: 0 } })
  })
  it('catches up once what was missed, however often that was', async () => {
    await add()
    expect(await begunBy('2026-09-30T15:00:00.000Z', '2026-09-30T15:00:15.000Z')).toEqual([1, 0])
    expect((await schedules())[0]?.nextAt).toBe('2026-10-01T09:00:00Z')
  })
  it('is kept by one of several workers that look at once', async () => {
    for (let i = 0; i < 6; i++) await add()
    const before = await runsBegun()
    await Promise.all(
      Array.from({ length: 8 }, () => keepSchedules(college.pool, '2026-09-17T09:00:00.000Z')),
    )
    expect((await runsBegun()) - before).toBe(6)
    await college.work()
  })
  it('begins nothing beside a run of its own that is still at work, and says so', async () => {
    await add()
    await keepSchedules(college.pool, '2026-09-17T09:00:00.000Z')
    const before = await runsBegun()
    await keepSchedules(college.pool, '2026-09-18T09:00:00.000Z')
    expect(await runsBegun()).toBe(before)
    expect((await schedules())[0]).toMatchObject({
      lastSaid: expect.stringContaining('still at work'),
      nextAt: '2026-09-19T09:00:00Z',
    })
    await college.work()
  })
  it('without a course says so, and goes on', async () => {
    await add({ department: 'SEA' })
    expect(await begunBy('2026-09-17T09:00:00.000Z')).toEqual([0])
    expect((await schedules())[0]?.lastSaid).toMatch(/no course/)
  })
  it('that is paused begins nothing, and does not catch up when it goes on', async () => {
    await add()
    const [schedule] = await schedules()
    const pause = (paused: boolean) =>
      designer.post(`/api/schedules/${schedule?.id}/pause`, { paused })
    expect((await pause(true)).status).toBe(200)
    expect(await begunBy('2026-09-20T09:00:00.000Z')).toEqual([0])
    expect((await pause(false)).status).toBe(200)
    expect((await schedules())[0]).toMatchObject({ paused: false, nextAt: '2026-09-17T09:00:00Z' })
  })
  it('is taken away', async () => {
    await add()
    const [schedule] = await schedules()
    expect((await designer.post(`/api/schedules/${schedule?.id}/remove`)).status).toBe(200)
    expect(await schedules()).toEqual([])
    expect((await designer.post(`/api/schedules/${schedule?.id}/remove`)).status).toBe(404)
  })
  it.each<[what: string, request: object, status: number, says: RegExp]>([
    ['every minute', { pattern: '* * * * *' }, 400, /at least 15 minutes/],
    ['words', { pattern: 'every day at six please' }, 400, /pattern/],
    ['six fields', { pattern: '0 0 6 * * *' }, 400, /five fields/],
    ['a term there is not', { term: 'never' }, 404, /term/],
  ])('is not made of %s', async (_, request, status, says) => {
    const answer = await add(request)
    expect([answer.status, answer.body.detail]).toEqual([status, expect.stringMatching(says)])
  })
  it('is made and changed by designers, each in the departments they look after, and seen by readers', async () => {
    const person = await college.person('designer', 'galley')
    await setRoles(college.pool, person.id, ['designer'], ['GAL'])
    const galley = await college.as(person)
    expect([
      (await add({}, galley)).status,
      (await add({ department: 'GAL' }, galley)).status,
    ]).toEqual([403, 200])
    await add()
    const ours = (await schedules()).find((one) => one.department === null)
    expect((await galley.post(`/api/schedules/${ours?.id}/remove`)).status).toBe(403)
    const reviewer = await college.as(await college.person('reviewer'))
    expect([
      (await reviewer.get('/api/schedules')).status,
      (await add({}, reviewer)).status,
    ]).toEqual([200, 403])
    expect(
      (await (await college.as(await college.person('instructor'))).get('/api/schedules')).status,
    ).toBe(403)
  })
})
