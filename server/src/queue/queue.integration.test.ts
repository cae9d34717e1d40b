import { afterAll, beforeEach, describe, expect, it } from 'vitest'
import { taskStates, type PlanSummary, type TaskState } from '@wickerframe/contract'
import { packText } from '../packed.ts'
import { commandRun } from '../runs/commands.ts'
import { createRun } from '../runs/newRun.ts'
import {
  cancelTasks,
  leaveOutRest,
  planAllAgain,
  queueReady,
  requeueFailed,
  requeueHeld,
  storeDecisions,
} from './commands.ts'
import { privateQueue, sent } from './queue.testing.ts'
import {
  claimTask,
  collectExpired,
  finishTask,
  forgetKey,
  keepPlan,
  markPreparedSent,
  markSent,
  postponeTask,
  renewLease,
  type ClaimedTask,
} from './tasks.ts'
import { transitions, type Transition } from './transitions.ts'

const queue = await privateQueue()
const { schema, courses, addRun, addTask, stateOf } = queue
afterAll(() => schema.stop())
beforeEach(() => queue.empty())

const held = (id: number, run: number, epoch = 7): ClaimedTask => ({
  id,
  runId: run,
  courseId: courses[0] ?? 0,
  epoch,
  attempts: 1,
  kind: 'rollout',
  by: 'designer@kestrelsound.example',
  asOf: null,
  templateId: null,
  version: null,
  planDigest: null,
  toPlan: false,
  order: null,
  decisions: {},
  sourceCourseId: null,
  proposal: null,
  sent: null,
  prepared: null,
})

type Act = (run: number, task: ClaimedTask) => Promise<unknown>
const acts: Record<Transition, Act> = {
  claim: () => claimTask(schema.pool, 60, 'a worker'),
  follow: () => claimTask(schema.pool, 60, 'a worker'),
  send: (_, task) => markSent(schema.pool, task, sent),
  'forget the key': (_, task) => forgetKey(schema.pool, task),
  finish: (_, task) => finishTask(schema.pool, task, 'done', ''),
  postpone: (_, task) => postponeTask(schema.pool, task, 1, 'later'),
  collect: () => collectExpired(schema.pool),
  approve: (run) => queueReady(schema.pool, run),
  'approve again': (run) => requeueHeld(schema.pool, run),
  'leave out': (run) => leaveOutRest(schema.pool, run),
  cancel: (run) => cancelTasks(schema.pool, run),
  retry: (run) => requeueFailed(schema.pool, run, true),
  'plan again': (run) => planAllAgain(schema.pool, run),
  decide: (run, task) => storeDecisions(schema.pool, run, task.courseId, {}),
}
/** In which state its run must be for a task of a state to be claimed at all. */
const runFor = (state: TaskState): string => (state === 'to-plan' ? 'planning' : 'running')
/** Claiming and following are one statement of a worker: whichever fits the state happens. */
const sameAct: Partial<Record<Transition, Transition>> = { claim: 'follow', follow: 'claim' }

describe.each(Object.keys(transitions) as Transition[])('%s', (transition) => {
  it.each(taskStates)('a task that is %s', async (state) => {
    const run = await addRun(runFor(state))
    const id = await addTask(run, state)
    await acts[transition](run, held(id, run))
    const after = await stateOf(id)
    const goes = [transition, sameAct[transition]].find(
      (name) => name && (transitions[name].from as readonly TaskState[]).includes(state),
    )
    if (goes) expect(transitions[goes].to).toContain(after)
    else expect(after).toBe(state)
  })
})

describe('what a worker takes up', () => {
  const claimed = async (): Promise<ClaimedTask> => {
    const task = await claimTask(schema.pool, 60, 'a worker')
    if (!task) throw new Error('nothing was claimed')
    return task
  }
  const write = (id: number, columns: string, ...values: unknown[]) =>
    schema.pool.query(
      `UPDATE tasks
       SET ${columns}
       WHERE id = ?`,
      [...values, id],
    )

  it('is to be planned, or carried out as people decided', async () => {
    const planning = await addRun('planning')
    await addTask(planning, 'to-plan')
    expect(await claimed()).toMatchObject({
      toPlan: true,
      decisions: {},
      sent: null,
      prepared: null,
    })
    const running = await addRun('running')
    const id = await addTask(running, 'waiting', courses[1])
    await write(id, 'decisions = ?', JSON.stringify({ a: { take: 'theirs' } }))
    expect(await claimed()).toMatchObject({
      id,
      epoch: 8,
      attempts: 1,
      toPlan: false,
      decisions: { a: { take: 'theirs' } },
    })
  })
  it('was sent already: the same key with the same payload', async () => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    await claimTask(schema.pool, 60, 'a worker that is gone')
    expect(await markSent(schema.pool, held(id, run, 8), { ...sent, payload: '[1]' })).toBe(true)
    await write(id, "next_at = '2000-01-01', lease_until = '2000-01-01'")
    await collectExpired(schema.pool)
    expect(await claimed()).toMatchObject({ sent: { ...sent, payload: '[1]' }, prepared: null })
  })
  it('was made ready: what is to be sent, and for which state of the course', async () => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    await write(id, 'payload = ?, prepared_for = ?', packText('[2]'), 'as planned')
    expect(await claimed()).toMatchObject({
      sent: null,
      prepared: { inputs: 'as planned', payload: '[2]' },
    })
  })
  it('was made ready for nothing that is known, or is sent anew under its key: not prepared', async () => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    await write(id, 'payload = ?', packText('[2]'))
    expect(await claimed()).toMatchObject({ sent: null, prepared: null })
  })
})

describe('whether it was still the worker’s', () => {
  it.each([
    ['renewed', (task: ClaimedTask) => renewLease(schema.pool, task, 60)],
    ['sent', (task: ClaimedTask) => markSent(schema.pool, task, sent)],
    ['ended', (task: ClaimedTask) => finishTask(schema.pool, task, 'done', 'x'.repeat(3000))],
  ] as const)('is said when it is %s', async (_, act) => {
    const run = await addRun('running')
    const id = await addTask(run, 'at-work')
    expect(await act(held(id, run, 6))).toBe(false)
    expect(await act(held(id, run))).toBe(true)
  })
})

describe('a worker that lost its lease', () => {
  it.each<[string, Act]>([
    ['ends nothing', acts.finish],
    ['puts nothing back', acts.postpone],
    ['sends nothing', acts.send],
    ['forgets no key', acts['forget the key']],
    ['renews nothing', (_, task) => renewLease(schema.pool, task, 60)],
  ])('%s', async (_, act) => {
    const run = await addRun('running')
    const id = await addTask(run, 'at-work')
    const before = await schema.rows(`SELECT *
      FROM tasks`)
    await act(run, held(id, run, 6))
    expect(
      await schema.rows(`SELECT *
        FROM tasks`),
    ).toEqual(before)
  })
})

describe('what is approved', () => {
  it.each<[Transition, from: TaskState, approve: typeof requeueHeld | typeof queueReady]>([
    ['approve', 'planned', queueReady],
    ['approve again', 'held', requeueHeld],
  ])('is what was chosen, and all where nothing was: %s', async (_, from, approve) => {
    const run = await addRun('running')
    const tasks: number[] = []
    for (const course of courses.slice(0, 3)) tasks.push(await addTask(run, from, course))
    const states = () => Promise.all(tasks.map(stateOf))
    await approve(schema.pool, run, courses.slice(1, 3))
    expect(await states()).toEqual([from, 'waiting', 'waiting'])
    await approve(schema.pool, run)
    expect(await states()).toEqual(['waiting', 'waiting', 'waiting'])
  })
})

describe('the plan of a task', () => {
  const summary = { state: 'ready', shape: 'a shape', digest: 'a digest' } as unknown as PlanSummary
  const kept = () =>
    schema.rows<{ plan_shape: string; prepared_for: string | null; packed: number }>(
      `SELECT plan_shape, prepared_for, payload IS NOT NULL AS packed
       FROM tasks`,
    )
  it('is kept with what is to be sent, where that is known, and without what was before', async () => {
    const run = await addRun('running')
    const id = await addTask(run, 'at-work')
    const task = held(id, run)
    await keepPlan(schema.pool, task, summary, { inputs: 'p', payload: '[1]' })
    expect(await kept()).toEqual([{ plan_shape: 'a shape', prepared_for: 'p', packed: 1 }])
    await keepPlan(schema.pool, task, summary, null)
    expect(await kept()).toEqual([{ plan_shape: 'a shape', prepared_for: null, packed: 0 }])
  })
  it('is sent as it was kept, and not where nothing was or another holds it', async () => {
    const run = await addRun('running')
    const id = await addTask(run, 'at-work')
    const send = (epoch: number) =>
      markPreparedSent(schema.pool, held(id, run, epoch), sent.key, sent.payloadDigest)
    expect(await send(7)).toBe(false)
    await keepPlan(schema.pool, held(id, run), summary, { inputs: 'p', payload: '[1]' })
    expect([await send(6), await stateOf(id)]).toEqual([false, 'at-work'])
    expect([await send(7), await stateOf(id)]).toEqual([true, 'sent'])
    await schema.pool.query(`UPDATE tasks
      SET lease_until = NULL`)
    const followed = await claimTask(schema.pool, 60, 'a worker')
    expect(followed?.sent).toEqual({ ...sent, payload: '[1]' })
  })
})

it('many workers that claim at once each get another task, and each task goes to one', async () => {
  const run = await addRun('running')
  for (const course of courses) await addTask(run, 'waiting', course)
  const claimed: number[] = []
  const lane = async (): Promise<void> => {
    for (let missed = 0; missed < 3;) {
      const task = await claimTask(schema.pool, 60, 'a worker')
      if (task) claimed.push(task.id)
      else missed += 1
    }
  }
  await Promise.all(Array.from({ length: 8 }, lane))
  expect([claimed.length, new Set(claimed).size]).toEqual([courses.length, courses.length])
})

describe('whose turn it is', () => {
  const ask = (title: string, few: readonly number[], state: 'running' | 'planning' = 'running') =>
    createRun(schema.pool, {
      kind: 'check',
      title,
      by: 'designer@kestrelsound.example',
      asOf: null,
      templateId: null,
      version: null,
      state,
      tasks: few.map((courseId) => ({ courseId })),
    })
  /** So long ago that it began. */
  const began = (run: number, seconds: number) =>
    schema.pool.query(
      `UPDATE tasks
       SET next_at = TIMESTAMPADD(SECOND, ?, NOW(3))
       WHERE run_id = ?`,
      [-seconds, run],
    )
  const next = async (count: number): Promise<number[]> => {
    const runs: number[] = []
    for (let i = 0; i < count; i++)
      runs.push((await claimTask(schema.pool, 60, 'a worker'))?.runId ?? 0)
    return runs
  }
  it.each(['running', 'planning'] as const)(
    'one course that somebody waits for comes before the rest of a long run: %s',
    async (state) => {
      const long = await ask('the night', courses)
      await began(long, 5)
      // It went on as it was asked for.
      expect(await next(8)).toEqual(Array.from({ length: 8 }, () => long))
      const one = await ask('one', courses.slice(0, 1), state)
      expect(await next(2)).toEqual([one, long])
    },
  )
  it('of two long runs is that of each in turn, once the later has come as far', async () => {
    const first = await ask('first', courses)
    await began(first, 4)
    await next(4)
    const second = await ask('second', courses)
    const turns = await next(20)
    for (const run of [first, second])
      expect(turns.filter((turn) => turn === run).length).toBeGreaterThanOrEqual(8)
  })
  it('of a long run comes, however many short ones are asked for after it', async () => {
    const long = await ask('long', courses)
    await began(long, 3600)
    for (const course of courses.slice(0, 5)) await ask('short', [course])
    expect(await next(3)).toEqual([long, long, long])
  })
  it('is not that of what waits for its time', async () => {
    const away = await ask('away', courses.slice(0, 1))
    await began(away, -60)
    const ready = await ask('ready', courses.slice(0, 2))
    expect(await next(3)).toEqual([ready, ready, 0])
  })
})

describe('trying again what failed', () => {
  it.each([
    ['planned', 'to-plan', 'planning'],
    ['done', 'waiting', 'running'],
  ])('in a run that is %s: the task is %s, the run %s', async (state, task, after) => {
    const run = await addRun(state)
    const id = await addTask(run, 'failed')
    await commandRun(schema.pool, run, 'retry', 'designer@kestrelsound.example')
    const [found] = await schema.rows<{ state: string }>(`SELECT state
      FROM runs`)
    expect([await stateOf(id), found?.state]).toEqual([task, after])
  })
})

describe('a task that is claimed', () => {
  const payload = packText('[1]')
  const claimed = async (columns: Readonly<Record<string, string | Buffer | null>>) => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    for (const [column, value] of Object.entries(columns))
      await schema.pool.query(
        `UPDATE tasks
         SET ${column} = ?
         WHERE id = ?`,
        [value, id],
      )
    return claimTask(schema.pool, 60, 'a worker')
  }
  it.each([
    ['nothing was prepared for it', {}, null, null],
    ['it was prepared', { payload, prepared_for: 'p' }, null, { inputs: 'p', payload: '[1]' }],
    ['it is not known for what it was prepared', { payload }, null, null],
    [
      'it was sent',
      { payload, idempotency_key: 'k', payload_digest: sent.payloadDigest, prepared_for: 'p' },
      { key: 'k', payloadDigest: sent.payloadDigest, payload: '[1]' },
      null,
    ],
  ])('tells what goes out: %s', async (_, columns, wasSent, prepared) => {
    expect(await claimed(columns)).toMatchObject({ sent: wasSent, prepared })
  })
  it('has the decisions that were taken, or none', async () => {
    expect((await claimed({}))?.decisions).toEqual({})
    await schema.pool.query('DELETE FROM tasks')
    expect((await claimed({ decisions: '{"week/overview":"ours"}' }))?.decisions).toEqual({
      'week/overview': 'ours',
    })
  })
})
