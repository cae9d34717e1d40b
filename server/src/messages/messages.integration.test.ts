import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Person } from '../people/people.ts'
import { closeFinishedRuns } from '../runs/closing.ts'
import { createRun } from '../runs/newRun.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { sendRunMessages } from './messages.ts'

let college: PrivateCollege
let person: Person
let designer: Client
let courses: number[]
beforeAll(async () => {
  college = await startPrivateCollege()
  person = await college.person('designer')
  designer = await college.as(person)
  courses = await college.addCourses(3)
})
afterAll(() => college.stop())
beforeEach(async () => {
  for (const table of ['messages', 'tasks', 'runs'])
    await college.pool.query(`DELETE FROM ${table}`)
})
const ended = async (kind: 'mends' | 'answers' | 'check', state: string): Promise<number> => {
  const run = await createRun(college.pool, {
    kind,
    title: 'Mends',
    by: person.email,
    asOf: null,
    templateId: null,
    version: null,
    tasks: courses.map((courseId) => ({ courseId })),
  })
  await college.pool.query(
    `UPDATE tasks
     SET state = ?`,
    [state],
  )
  await closeFinishedRuns(college.pool)
  return run
}
const told = async (client = designer) => (await client.get('/api/messages')).body

describe('messages', () => {
  it('tell whoever began a run what came of it, once', async () => {
    const run = await ended('mends', 'failed')
    await Promise.all([1, 2, 3].map(() => sendRunMessages(college.pool)))
    expect(await told()).toMatchObject([
      { run, subject: 'Ended: Mends', body: expect.stringContaining('3 failed'), read: false },
    ])
  })
  it('are not sent of checks, which somebody looks at anyway', async () => {
    await ended('check', 'done')
    expect(await told()).toEqual([])
  })
  it.each([
    ['written', 'done', 0],
    ['not written', 'failed', 1],
  ])('are sent of answers only where they were not written: %s', async (_, state, count) => {
    await ended('answers', state)
    await sendRunMessages(college.pool)
    expect(await told()).toHaveLength(count)
  })
  it('are read by whom they are to, and by nobody else', async () => {
    await ended('mends', 'done')
    const [message] = await told()
    const other = await college.as(await college.person('designer', 'another'))
    expect(await told(other)).toEqual([])
    expect((await other.post(`/api/messages/${message.id}/read`)).status).toBe(404)
    expect((await designer.post(`/api/messages/${message.id}/read`)).status).toBe(200)
    expect((await told())[0].read).toBe(true)
  })
})
