import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { CoursePlan, CourseSummary, RunDetail } from '@wickerframe/contract'
import { everyCourseItem, everyModule, type Course } from '@wickerframe/core'
import { rowsOf } from '@wickerframe/storage'
import { findBase } from '@wickerframe/server/rollouts/bases'
import { planRollout, versionOrder } from './rollouts.ts'
import { startTestBed, until, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let designer: Client
let number = 0

beforeAll(async () => {
  bed = await startTestBed({ courses: 4 })
  designer = await bed.as('designer@kestrelsound.example')
})
afterAll(() => bed.stop())
beforeEach(async () => {
  for (const name of [
    'too-many-requests',
    'server-error',
    'lost-answer',
    'never-answers',
    'edit-in-between',
    'slow-answers',
  ])
    await bed.misbehave(name, 0)
})

/** A new shell on the platform, in the roster, with its approved plan. */
const newShells = async (
  count: number,
): Promise<{ summaries: CourseSummary[]; plans: CoursePlan[]; run: number }> => {
  const lines = [
    'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,platform course id,status',
  ]
  const ids: string[] = []
  for (let i = 0; i < count; i++) {
    const id = `once-${++number}`
    ids.push(id)
    await fetch(`${bed.platformAddress}/connector/v1/courses`, {
      method: 'POST',
      headers: { authorization: bed.authorization, 'content-type': 'application/json' },
      body: JSON.stringify({ id, name: 'New course' }),
    })
    lines.push(
      `SAF 150,Liferaft & Flare Drill,autumn-2026,first-half,${String(number).padStart(2, '0')},own,pilar@kestrelsound.example,Pilar Hjort,on-campus,8,${id},teaching`,
    )
  }
  expect(
    (await designer.post('/api/roster', lines.join('\n'), { 'content-type': 'text/csv' })).body,
  ).toMatchObject({ errors: [], added: count })
  const summaries = (await designer.get<CourseSummary[]>('/api/courses')).body.filter((course) =>
    ids.includes(course.platformId),
  )
  const { run, plans } = await planRollout(
    bed,
    designer,
    versionOrder('short-course-standard', 1),
    summaries.map((summary) => summary.id),
  )
  expect(plans.map((plan) => plan.state)).toEqual(plans.map(() => 'ready'))
  return { summaries, plans, run }
}
const approve = async (run: number): Promise<number> => {
  await designer.post(`/api/runs/${run}/approve`)
  return run
}
const runOf = async (id: number) => (await designer.get<RunDetail>(`/api/runs/${id}`)).body

/** Nothing doubled, nothing missing: the platform holds each planned part once, and we recorded each once. */
const expectExactlyOnce = async (summary: CourseSummary, plan: CoursePlan) => {
  const course = (await bed.connector(`/courses/${summary.platformId}/snapshot`)) as Course
  const found = [
    ...everyModule(course.modules).map((module) => module.name),
    ...everyCourseItem(course).map(({ item }) => item.name),
  ].sort()
  expect(found).toEqual(
    plan.steps
      .filter((step) => step.does === 'create')
      .map((step) => step.name)
      .sort(),
  )
  expect(
    await rowsOf(
      bed.pool,
      `SELECT number, parts
       FROM deployments
       WHERE course_id = ?`,
      [summary.id],
    ),
  ).toEqual([{ number: 1, parts: found.length }])
  const base = await findBase(bed.pool, summary.id)
  const ids = [
    ...everyModule(course.modules).map((module) => module.id),
    ...everyCourseItem(course).map(({ item }) => item.id),
  ]
  expect(base.parts.map((entry) => entry.platformId).sort()).toEqual(ids.sort())
  const again = await planRollout(bed, designer, versionOrder('short-course-standard', 1), [
    summary.id,
  ])
  expect(again.plans[0]?.state).toBe('nothing-to-do')
}

describe('a rollout happens exactly once', () => {
  it('when server and worker are killed between the platform’s commit and our receipt of its answer', async () => {
    const { summaries, plans, run: planned } = await newShells(1)
    await bed.misbehave('never-answers', 1)
    const run = await approve(planned)
    const worker = await bed.startWorker()
    await until(
      async () =>
        ((await bed.connector(`/courses/${summaries[0]?.platformId}/snapshot`)) as Course).modules
          .length,
      (modules) => modules > 0,
    )
    expect((await runOf(run)).counts).toMatchObject({ sent: 1, done: 0 })
    await Promise.all([worker.stop('SIGKILL'), bed.server.stop('SIGKILL')])
    await bed.startServer()
    const second = await bed.startWorker()
    await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    await second.stop()
    for (const [i, summary] of summaries.entries())
      await expectExactlyOnce(summary, plans[i] as CoursePlan)
  })

  it('when the worker is killed again and again in the middle of many courses', async () => {
    const { summaries, plans, run: planned } = await newShells(6)
    await bed.misbehave('slow-answers', 120)
    const run = await approve(planned)
    for (let i = 0; i < 4; i++) {
      const worker = await bed.startWorker()
      await new Promise((resolve) => setTimeout(resolve, 350 + i * 150))
      await worker.stop('SIGKILL')
    }
    const worker = await bed.startWorker()
    await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    await worker.stop()
    await bed.misbehave('slow-answers', 0)
    for (const plan of plans) {
      const summary = summaries.find((summary) => summary.id === plan.course)
      if (summary) await expectExactlyOnce(summary, plan)
    }
  })

  it('when answers are lost, the platform answers 429 and 500, and two workers share the work', async () => {
    const { summaries, plans, run: planned } = await newShells(4)
    await bed.misbehave('lost-answer', 2)
    await bed.misbehave('too-many-requests', 3)
    await bed.misbehave('server-error', 3)
    const run = await approve(planned)
    const workers = [await bed.startWorker(), await bed.startWorker()]
    await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    await Promise.all(workers.map((worker) => worker.stop()))
    for (const plan of plans) {
      const summary = summaries.find((summary) => summary.id === plan.course)
      if (summary) await expectExactlyOnce(summary, plan)
    }
  })

  it('with two servers and three workers on one database: the work is shared, and the result is the same', async () => {
    const { summaries, plans, run: planned } = await newShells(9)
    const second = await bed.startServer('0')
    const elsewhere = await bed.as(
      'designer@kestrelsound.example',
      `http://127.0.0.1:${String(second.said['listening'])}`,
    )
    const workers = [await bed.startWorker(), await bed.startWorker(), await bed.startWorker()]
    await bed.misbehave('slow-answers', 250)
    await elsewhere.post(`/api/runs/${planned}/approve`)
    await until(
      () => runOf(planned),
      (detail) => detail.state === 'done',
    )
    expect((await elsewhere.get<RunDetail>(`/api/runs/${planned}`)).body.counts.done).toBe(9)
    await Promise.all([...workers, second].map((worker) => worker.stop()))
    await bed.misbehave('slow-answers', 0)
    const shared = await rowsOf<{ worked_by: string }>(
      bed.pool,
      `SELECT DISTINCT worked_by
       FROM tasks
       WHERE run_id = ?`,
      [planned],
    )
    expect(shared.length).toBe(3)
    for (const plan of plans) {
      const summary = summaries.find((summary) => summary.id === plan.course)
      if (summary) await expectExactlyOnce(summary, plan)
    }
  })

  it('when the platform is away for a while', async () => {
    const { summaries, plans, run: planned } = await newShells(1)
    await bed.platform().stop('SIGKILL')
    const run = await approve(planned)
    const worker = await bed.startWorker()
    await until(
      () => runOf(run),
      ({ waitsFor }) => waitsFor !== null,
    )
    expect((await runOf(run)).waitsFor).toEqual({
      message: 'the platform cannot be reached',
      courses: 1,
    })
    await bed.startPlatform()
    await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    await worker.stop()
    await expectExactlyOnce(summaries[0] as CourseSummary, plans[0] as CoursePlan)
  })

  it('when the course is edited in between: planned again, and the same plan goes on', async () => {
    const { summaries, plans, run: planned } = await newShells(1)
    await bed.misbehave('edit-in-between', 1)
    const run = await approve(planned)
    const worker = await bed.startWorker()
    await until(
      () => runOf(run),
      (detail) => detail.state === 'done',
    )
    await worker.stop()
    await expectExactlyOnce(summaries[0] as CourseSummary, plans[0] as CoursePlan)
  })
})

describe('a rollout that cannot go on', () => {
  it('fails with the cause when the course holds other content by now, and leaves that as it was; retry plans nothing new', async () => {
    const { summaries, run: planned } = await newShells(1)
    const id = summaries[0]?.platformId ?? ''
    const before = await fetch(`${bed.platformAddress}/connector/v1/courses/${id}/change-sets`, {
      method: 'POST',
      headers: {
        authorization: bed.authorization,
        'content-type': 'application/json',
        'idempotency-key': `own-${id}-12345`,
      },
      body: JSON.stringify({
        expectedRevision: '1',
        changes: [
          {
            change: 'create-module',
            clientId: 'm',
            parent: null,
            at: null,
            fields: { name: 'My own' },
          },
        ],
      }),
    })
    expect(before.status).toBe(200)
    const run = await approve(planned)
    const worker = await bed.startWorker()
    await until(
      () => runOf(run),
      (detail) => detail.counts.failed === 1,
    )
    expect((await runOf(run)).tasks[0]?.message).toContain('a decision of its own')
    await designer.post(`/api/runs/${run}/retry`)
    await until(
      () => runOf(run),
      (detail) => detail.counts.failed === 1,
    )
    await worker.stop()
    expect(
      ((await bed.connector(`/courses/${id}/snapshot`)) as Course).modules.map(
        (module) => module.name,
      ),
    ).toEqual(['My own'])
  })

  it('pauses, goes on, and leaves out what had not begun', async () => {
    const { run: planned } = await newShells(3)
    const run = await approve(planned)
    await designer.post(`/api/runs/${run}/pause`)
    const worker = await bed.startWorker()
    await new Promise((resolve) => setTimeout(resolve, 800))
    expect((await runOf(run)).counts.waiting).toBe(3)
    await designer.post(`/api/runs/${run}/cancel`)
    expect(await runOf(run)).toMatchObject({ state: 'cancelled', counts: { cancelled: 3 } })
    await worker.stop()
  })
})

describe('the connector', () => {
  it('answers the same key and payload the same, refuses another payload, a stale revision and a voided key', async () => {
    const { summaries } = await newShells(1)
    const id = summaries[0]?.platformId ?? ''
    const apply = async (key: string, name: string, revision: string) =>
      await fetch(`${bed.platformAddress}/connector/v1/courses/${id}/change-sets`, {
        method: 'POST',
        headers: {
          authorization: bed.authorization,
          'content-type': 'application/json',
          'idempotency-key': key,
        },
        body: JSON.stringify({
          expectedRevision: revision,
          changes: [{ change: 'set-course', name }],
        }),
      })
    const first = await apply('key-number-one', 'A', '1')
    const text = await first.text()
    expect(first.status).toBe(200)
    expect(await (await apply('key-number-one', 'A', '1')).text()).toBe(text)
    expect((await apply('key-number-one', 'B', '1')).status).toBe(422)
    expect((await apply('key-number-two', 'C', '1')).status).toBe(409)
    await fetch(`${bed.platformAddress}/connector/v1/keys/key-number-three/void`, {
      method: 'POST',
      headers: { authorization: bed.authorization },
    })
    expect((await apply('key-number-three', 'D', '2')).status).toBe(409)
    expect((await fetch(`${bed.platformAddress}/connector/v1/courses`)).status).toBe(401)
  })
})
