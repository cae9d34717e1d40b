import { pino } from 'pino'
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { taskStates, type TaskState } from '@wickerframe/contract'
import { packText } from '../packed.ts'
import { startPrivateSchema, type PrivateSchema } from '../testing/privateSchema.testing.ts'
import { commandRun } from '../runs/commands.ts'
import {
  cancelTasks,
  leaveOutRest,
  planAllAgain,
  queueReady,
  requeueFailed,
  requeueHeld,
  storeDecisions,
} from './commands.ts'
import type { Job } from './job.ts'
import type { TaskOutcome } from './outcome.ts'
import {
  claimTask,
  collectExpired,
  finishTask,
  forgetKey,
  markSent,
  postponeTask,
  renewLease,
  type ClaimedTask,
} from './tasks.ts'
import { transitions, type Transition } from './transitions.ts'
import { startWorker } from './worker.ts'

let schema: PrivateSchema
let courses: number[]
beforeAll(async () => {
  schema = await startPrivateSchema()
  courses = await schema.addCourses(30)
})
afterAll(() => schema.stop())
beforeEach(async () => {
  await schema.pool.query('DELETE FROM tasks')
  await schema.pool.query('DELETE FROM runs')
})

const addRun = async (state: string): Promise<number> => {
  await schema.pool.query(
    `INSERT INTO runs (kind, state, title, created_by, created_at)
     VALUES ('rollout', ?, 'A rollout', 'designer@kestrelsound.example', NOW(3))`,
    [state],
  )
  const [run] = await schema.rows<{ id: number }>(`SELECT MAX(id) AS id
    FROM runs`)
  return run?.id ?? 0
}
const sent = { key: 'key', payloadDigest: 'd'.repeat(64), payload: '[]' }
/** A task in a state, held by epoch 7 with a lease that has run out. */
const addTask = async (run: number, state: TaskState, course = courses[0]): Promise<number> => {
  await schema.pool.query(
    `INSERT INTO tasks (
       run_id, course_id, state, next_at, lease_epoch, lease_until, plan_summary, idempotency_key,
         payload, payload_digest
     )
     VALUES (?, ?, ?, '2000-01-01', 7, '2000-01-01', '{"state":"ready"}', ?, ?, ?)`,
    [
      run,
      course,
      state,
      state === 'sent' ? `${sent.key}-${course}` : null,
      state === 'sent' ? Buffer.from([0x03, 0x00]) : null,
      state === 'sent' ? sent.payloadDigest : null,
    ],
  )
  const [task] = await schema.rows<{ id: number }>(`SELECT MAX(id) AS id
    FROM tasks`)
  return task?.id ?? 0
}
const stateOf = async (id: number): Promise<TaskState | undefined> =>
  (
    await schema.rows<{ state: TaskState }>(
      `SELECT state
       FROM tasks
       WHERE id = ?`,
      [id],
    )
  )[0]?.state
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

describe('a worker', () => {
  const log = pino({ level: 'silent' })
  const working = async (
    carryOut: (job: Pick<Job, 'task' | 'lease'>) => Promise<TaskOutcome>,
    until: () => Promise<void>,
    leaseSeconds = 60,
  ) => {
    const settled = vi.fn(() => Promise.resolve())
    const worker = startWorker(
      schema.pool,
      {
        name: 'a worker',
        leaseSeconds,
        concurrency: 2,
        // Of a job only what these tests look at.
        jobOf: (task, lease) => ({ task, lease }) as Job,
        carryOut,
        isOurs: () => Promise.resolve(true),
        settled,
        collected: () => Promise.resolve(),
        chores: [],
      },
      log,
    )
    try {
      await vi.waitFor(until, { timeout: 20_000, interval: 20 })
    } finally {
      await worker.stop()
    }
    return settled
  }

  it('puts back what throws, and says that it is tried again', async () => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    const settled = await working(
      () => Promise.reject(new Error('a fault of ours')),
      async () => expect(await stateOf(id)).toBe('waiting'),
    )
    const [task] = await schema.rows<{ message: string; attempts: number }>(
      `SELECT message, attempts
       FROM tasks`,
    )
    expect(task?.message).toBe('something failed here; it is tried again')
    expect(settled).toHaveBeenCalledWith(run)
  })
  it('gives up after twelve attempts, but never on what was sent', async () => {
    const run = await addRun('running')
    const [waiting, followed] = [
      await addTask(run, 'waiting', courses[1]),
      await addTask(run, 'sent', courses[2]),
    ]
    await schema.pool.query(`UPDATE tasks
      SET attempts = 11`)
    const later = {
      state: 'later',
      message: 'not yet',
      afterSeconds: 60,
      fateUnknown: false,
    } as const
    await working(
      () => Promise.resolve(later),
      async () => {
        const [put] = await schema.rows<{ attempts: number }>(
          `SELECT attempts
           FROM tasks
           WHERE id = ? AND lease_until IS NULL`,
          [followed],
        )
        expect([await stateOf(waiting), put?.attempts]).toEqual(['failed', 12])
      },
    )
    expect(await stateOf(followed)).toBe('sent')
    const [task] = await schema.rows<{ message: string }>(
      `SELECT message
       FROM tasks
       WHERE id = ?`,
      [waiting],
    )
    expect(task?.message).toBe('not yet; given up after 12 attempts')
  })
  it('whose lease another took over says nothing of the task any more', async () => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    const settled = await working(
      async ({ lease }) => {
        await schema.pool.query(`UPDATE tasks
          SET lease_epoch = lease_epoch + 1`)
        await new Promise<void>((resolve) => lease.addEventListener('abort', () => resolve()))
        return { state: 'failed', message: 'told by nobody' }
      },
      async () => {
        const [task] = await schema.rows<{ lease_epoch: number }>(`SELECT lease_epoch
          FROM tasks`)
        expect(task?.lease_epoch).toBeGreaterThan(8)
      },
      1,
    )
    expect(settled).not.toHaveBeenCalled()
    expect(await stateOf(id)).not.toBe('failed')
  })
})
