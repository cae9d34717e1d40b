import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Person } from '../people/people.ts'
import {
  startPrivateCollege,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { listMessages } from '../messages/messages.ts'
import { beginSession, endSessionsOf } from '../people/sessions.ts'
import { closeFinishedRuns } from './closing.ts'
import { createRun, type NewRun } from './newRun.ts'
import { claimTask, postponeTask } from '../queue/tasks.ts'
import { Pulses } from './pulses.ts'
import { runPulse } from './runs.ts'

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

const asked = (more: Partial<NewRun> = {}): NewRun => ({
  kind: 'check',
  title: 'A check',
  by: person.email,
  asOf: '2026-09-16',
  templateId: null,
  version: null,
  tasks: courses.map((courseId) => ({ courseId })),
  ...more,
})
const run = async (id: number) => (await designer.get(`/api/runs/${id}`)).body
const setTasks = (state: string) =>
  college.pool.query(
    `UPDATE tasks
     SET state = ?, finished_at = NOW(3)`,
    [state],
  )

describe('a run', () => {
  it('is paused, goes on, and is cancelled with what was not begun', async () => {
    const id = await createRun(college.pool, asked())
    const does = (command: string) => designer.post(`/api/runs/${id}/${command}`)
    await does('pause')
    expect((await run(id)).state).toBe('paused')
    await does('resume')
    expect((await run(id)).state).toBe('running')
    await does('cancel')
    expect(await run(id)).toMatchObject({
      state: 'cancelled',
      counts: { cancelled: 3, waiting: 0 },
    })
    await does('resume')
    expect((await run(id)).state).toBe('cancelled')
  })
  it('asked for twice before anything was read is one run; another question is another', async () => {
    const ask = (more: object = {}) => designer.post('/api/checks', { courses, ...more })
    const answers = await Promise.all([ask(), ask(), ask()])
    expect(new Set(answers.map(({ body }) => body.run)).size).toBe(1)
    const [first] = answers
    expect((await ask({ asOf: '2026-10-01' })).body.run).not.toBe(first?.body.run)
    await setTasks('at-work')
    expect((await ask()).body.run).not.toBe(first?.body.run)
  })
  it('is one of twenty that a person may have open: the next is refused with when to come back', async () => {
    for (let i = 0; i < 20; i++) await createRun(college.pool, asked())
    const refused = await designer.post('/api/checks', { courses })
    expect([refused.status, refused.headers.get('retry-after')]).toEqual([429, '30'])
  })
  it('is ended once, when its last task has, and whoever began it is told', async () => {
    const id = await createRun(college.pool, asked({ kind: 'renames', title: 'Names' }))
    await closeFinishedRuns(college.pool)
    expect((await run(id)).state).toBe('running')
    await setTasks('done')
    await Promise.all([1, 2, 3].map(() => closeFinishedRuns(college.pool)))
    expect(await run(id)).toMatchObject({ state: 'done', counts: { done: 3 } })
    expect(await listMessages(college.pool, person.email)).toMatchObject([
      {
        run: id,
        subject: 'Ended: Names',
        body: expect.stringContaining('3 courses done'),
        read: false,
      },
    ])
  })
  it('tells what its courses wait for, the most frequent of it, while any of them is to be tried again', async () => {
    const id = await createRun(college.pool, asked())
    const waitsFor = async () => (await run(id)).waitsFor
    expect(await waitsFor()).toBeNull()
    const [first, second] = courses
    const met = (state: string, message: string, ids: unknown[]) =>
      college.pool.query(
        `UPDATE tasks
         SET state = ?, message = ?
         WHERE course_id IN (?)`,
        [state, message, ids],
      )
    await met('waiting', 'the platform cannot be reached', [first, second])
    await met('waiting', 'another run is at work in this course', courses.slice(2))
    expect(await waitsFor()).toEqual({ courses: 2, message: 'the platform cannot be reached' })
    // While it is tried once more the words stay.
    await met('at-work', 'the platform cannot be reached', [first])
    expect(await waitsFor()).toMatchObject({ courses: 2 })
    await met('done', '7 of 9 requirements met', courses)
    expect(await waitsFor()).toBeNull()
  })
  it('has another pulse each time one of its courses was tried, also where nothing came of it', async () => {
    const id = await createRun(college.pool, asked())
    const before = await runPulse(college.pool, id)
    expect(await runPulse(college.pool, id)).toBe(before)
    const task = await claimTask(college.pool, 60, 'a worker')
    if (!task) throw new Error('a task is due')
    await postponeTask(college.pool, task, 30, 'the platform cannot be reached', false)
    expect(await runPulse(college.pool, id)).not.toBe(before)
  })
  it('that is planning is planned when all is, and waits for approval', async () => {
    const id = await createRun(college.pool, asked({ kind: 'rollout', state: 'planning' }))
    await setTasks('planned')
    await closeFinishedRuns(college.pool)
    expect((await run(id)).state).toBe('planned')
  })
  it('that is not there is 404 for each thing that can be done with it', async () => {
    for (const command of ['pause', 'resume', 'cancel', 'retry', 'approve'])
      expect([command, (await designer.post(`/api/runs/999999/${command}`)).status]).toEqual([
        command,
        404,
      ])
    expect((await designer.get('/api/runs/999999')).status).toBe(404)
    expect((await designer.get('/api/runs/999999/events')).status).toBe(404)
  })
  it('is seen by who sees all of its courses', async () => {
    const [first = 0, second = 0] = courses
    await college.pool.query(
      `INSERT INTO course_people (course_id, email, name, position)
       VALUES (?, ?, ?, 0)`,
      [first, 'teaching@kestrelsound.example', 'Teaching'],
    )
    const teaching = await college.as(await college.person('instructor', 'teaching'))
    const own = await createRun(college.pool, asked({ tasks: [{ courseId: first }] }))
    const both = await createRun(
      college.pool,
      asked({ tasks: [{ courseId: first }, { courseId: second }] }),
    )
    expect((await teaching.get(`/api/runs/${own}`)).status).toBe(200)
    expect((await teaching.get(`/api/runs/${both}`)).status).toBe(404)
  })
})

describe('who follows a run', () => {
  /** Reads a stream of events until it ends. */
  const followed = async (
    id: number,
  ): Promise<{ next: () => Promise<string | null>; close: () => void }> => {
    const stop = new AbortController()
    const response = await fetch(`${college.address}/api/runs/${id}/events`, {
      headers: { cookie: `wickerframe-session=${await beginSession(college.pool, person.id)}` },
      signal: stop.signal,
    })
    expect([response.status, response.headers.get('content-type')]).toEqual([
      200,
      expect.stringContaining('text/event-stream'),
    ])
    const reader = response.body?.getReader()
    return {
      next: async () => {
        const { done, value } = (await reader?.read()) ?? { done: true, value: undefined }
        return done ? null : new TextDecoder().decode(value)
      },
      close: () => stop.abort(),
    }
  }
  it('is told when something of it changes, and of its end', async () => {
    const id = await createRun(college.pool, asked())
    const stream = await followed(id)
    expect(await stream.next()).toContain('waiting3')
    await setTasks('done')
    expect(await stream.next()).toContain('done3')
    await closeFinishedRuns(college.pool)
    let last: string | null = ''
    for (let told: string | null = ''; told !== null; told = await stream.next())
      last = told || last
    expect(last).toContain('done:')
  })
  it('is told no more once their session has ended', async () => {
    const id = await createRun(college.pool, asked())
    const stream = await followed(id)
    await stream.next()
    await endSessionsOf(college.pool, person.id)
    expect(await stream.next()).toBeNull()
    designer = await college.as(person)
  }, 30_000)
  it('is told the end when the program ends, and nothing after it', async () => {
    const id = await createRun(college.pool, asked())
    const pulses = new Pulses(college.pool)
    const told: (string | null)[] = []
    await pulses.follow(id, (pulse) => told.push(pulse))
    pulses.endAll()
    pulses.endAll()
    expect(told).toEqual([expect.stringContaining('waiting3'), null])
    expect(await pulses.follow(999_999, () => undefined)).toBeNull()
  })
  it('has a few streams at most, and gets one back when another ends', () => {
    const pulses = new Pulses(college.pool)
    const taken = Array.from({ length: 6 }, () => pulses.take(1))
    expect(taken.every((giveBack) => giveBack !== null)).toBe(true)
    expect([pulses.take(1), pulses.take(2) === null]).toEqual([null, false])
    taken[0]?.()
    taken[0]?.()
    expect(pulses.take(1)).not.toBeNull()
    expect(pulses.take(1)).toBeNull()
  })
})
