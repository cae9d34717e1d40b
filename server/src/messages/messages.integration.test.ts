import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Person } from '../people/people.ts'
import { closeFinishedRuns } from '../runs/closing.ts'
import { createRun } from '../runs/newRun.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { sendRunMessages, tellOfCourse, tellOfCourses, type ToTell } from './messages.ts'

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

describe('what people are told of courses', () => {
  const of = (n: number, more: Partial<ToTell> = {}): ToTell => ({
    email: person.email,
    courseId: courses[n % courses.length] ?? 0,
    subject: `Told ${n}`,
    body: `It is “so” \\ ${n}.\nAnd so on.`,
    ...more,
  })
  it('is told in its order, each as it was said, however many there are', async () => {
    await tellOfCourses(
      college.pool,
      Array.from({ length: 1203 }, (_, n) => of(n)),
    )
    const rows = await college.rows<{
      recipient: string
      course_id: number
      subject: string
      body: string
    }>(
      `SELECT recipient, course_id, subject, body
       FROM messages
       ORDER BY id`,
    )
    expect(rows).toEqual(
      Array.from({ length: 1203 }, (_, n) => {
        const { email, courseId, subject, body } = of(n)
        return { recipient: email, course_id: courseId, subject, body }
      }),
    )
  })
  it('is for whoever has an account, unread unless they do not want to be told', async () => {
    const [instructor, gone] = [
      await college.person('instructor'),
      await college.person('reviewer'),
    ]
    await college.pool.query(
      `UPDATE people
       SET deactivated_at = NOW()
       WHERE email = ?`,
      [gone.email],
    )
    await college.pool.query(
      `UPDATE people
       SET preferences = '{"tellOfCourses": false}'
       WHERE email = ?`,
      [instructor.email],
    )
    await tellOfCourses(college.pool, [
      of(0, { email: 'nobody@kestrelsound.example' }),
      of(1, { email: gone.email }),
      of(2, { email: instructor.email }),
      of(3),
    ])
    expect(
      await college.rows(
        `SELECT recipient, read_at IS NOT NULL AS was_read
         FROM messages
         ORDER BY id`,
      ),
    ).toEqual([
      { recipient: instructor.email, was_read: 1 },
      { recipient: person.email, was_read: 0 },
    ])
  })
  it('is cut where there is no more room, and never in the middle of a sign', async () => {
    const anchor = '\u{1F6A2}'
    await tellOfCourse(college.pool, person.email, courses[0] ?? 0, {
      subject: `x${anchor.repeat(400)}`,
      body: `${anchor.repeat(3000)}\ud83d`,
    })
    const [{ subject = '', body = '' } = {}] = await told()
    expect([subject.length, subject.startsWith(`x${anchor}`)]).toEqual([300, true])
    expect([body.length, body.endsWith(anchor)]).toEqual([4000, true])
  })
})
