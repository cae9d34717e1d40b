import { pino } from 'pino'
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Job } from './job.ts'
import { failed, fateUnknown, later, waits, type TaskOutcome } from './outcome.ts'
import { privateQueue, sent } from './queue.testing.ts'
import { finishTask, markSent } from './tasks.ts'
import { startWorker, type WorkerSettings } from './worker.ts'

const queue = await privateQueue()
const { schema, courses, addRun, addTask, stateOf } = queue
afterAll(() => schema.stop())
beforeEach(() => queue.empty())

type CarryOut = (job: Pick<Job, 'task' | 'lease'>) => Promise<TaskOutcome>
const worker = (
  carryOut: CarryOut,
  more: Partial<WorkerSettings> = {},
  log = pino({ level: 'silent' }),
) =>
  startWorker(
    schema.pool,
    {
      name: 'a worker',
      leaseSeconds: 60,
      concurrency: 2,
      // Of a job only what these tests look at.
      jobOf: (task, lease) => ({ task, lease }) as Job,
      carryOut,
      isOurs: () => Promise.resolve(true),
      settled: () => Promise.resolve(),
      collected: () => Promise.resolve(),
      chores: [],
      ...more,
    },
    log,
  )
/** Lets a worker work until something holds, and stops it. */
const working = async (
  carryOut: CarryOut,
  until: () => Promise<void> | void,
  more: Partial<WorkerSettings> = {},
  log = pino({ level: 'silent' }),
): Promise<void> => {
  const { stop } = worker(carryOut, more, log)
  try {
    await vi.waitFor(until, { timeout: 20_000, interval: 20 })
  } finally {
    await stop()
  }
}
interface Row {
  state: string
  message: string | null
  waits: number
}
/** Where a task stands, and in how many seconds it is due. */
const standing = async (task: number): Promise<Row | undefined> =>
  (
    await schema.rows<Row>(
      `SELECT state, message, TIMESTAMPDIFF(MICROSECOND, NOW(3), next_at) / 1e6 AS waits
       FROM tasks
       WHERE id = ?`,
      [task],
    )
  )[0]
const afterAttempts = (attempts: number) =>
  schema.pool.query(
    `UPDATE tasks
     SET attempts = ?`,
    [attempts - 1],
  )
/** A fault as the driver tells it. */
const driverFault = (code: string) => Object.assign(new Error(code), { code })

describe('what a worker makes of what a task came to', () => {
  it.each<[outcome: TaskOutcome, state: string, message: string | null]>([
    [failed('the course is gone'), 'failed', 'the course is gone'],
    [{ state: 'held', message: 'it came out otherwise' }, 'held', 'it came out otherwise'],
    [later('the platform is busy', 60), 'waiting', 'the platform is busy'],
    // Whoever carried it out has said so in the transaction of what it did.
    [{ state: 'done' }, 'at-work', ''],
    [{ state: 'lost-lease' }, 'at-work', ''],
  ])('%j', async (outcome, state, message) => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    const settled = vi.fn(() => Promise.resolve())
    await working(
      () => Promise.resolve(outcome),
      () => expect(settled).toHaveBeenCalledWith(run),
      { settled },
    )
    expect(await standing(id)).toMatchObject({ state, message })
  })
  it('takes nothing while the schema is another program’s', async () => {
    await addTask(await addRun('running'), 'waiting')
    let asked = 0
    const carried: number[] = []
    await working(
      () => {
        carried.push(asked)
        return Promise.resolve({ state: 'done' })
      },
      () => expect(carried.length).toBe(1),
      { concurrency: 1, isOurs: () => Promise.resolve((asked += 1) > 1) },
    )
    expect(carried[0]).toBeGreaterThan(1)
  })
  it('counts what was tried in vain, keeps no more of a long reason than has room, and renews its lease no more', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    const [held, letGo] = [
      vi.spyOn(globalThis, 'setInterval'),
      vi.spyOn(globalThis, 'clearInterval'),
    ]
    await working(
      () => Promise.resolve(later('no '.repeat(2000), 300)),
      async () => expect((await standing(id))?.waits).toBeGreaterThan(200),
    )
    const [row] = await schema.rows<{ attempts: number; length: number }>(
      `SELECT attempts, CHAR_LENGTH(message) AS length
       FROM tasks
       WHERE id = ?`,
      [id],
    )
    expect(row).toEqual({ attempts: 1, length: 2000 })
    const ended = new Set(letGo.mock.calls.map(([one]) => one))
    expect(held.mock.results.filter(({ value }) => !ended.has(value))).toEqual([])
    vi.restoreAllMocks()
  })
  it('leaves what was ended in its transaction as it was ended', async () => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    await working(
      async ({ task }) => {
        await finishTask(schema.pool, task, 'done', 'nothing to change')
        return { state: 'done' }
      },
      async () => expect(await stateOf(id)).toBe('done'),
    )
    expect((await standing(id))?.message).toBe('nothing to change')
  })
  it('waits as long as the platform asks for', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    await working(
      () => Promise.resolve(later('ask again in five minutes', 300)),
      async () => expect((await standing(id))?.message).toContain('five'),
    )
    const waits = (await standing(id))?.waits ?? 0
    expect([waits > 240, waits <= 300]).toEqual([true, true])
  })
  it.each([
    [1, 0.5],
    [2, 1],
    [5, 8],
    [7, 32],
    [8, 60],
    [11, 60],
  ])(
    'waits longer each time: after attempt %i about %d s, half as much again at most',
    async (attempt, seconds) => {
      const id = await addTask(await addRun('running'), 'waiting')
      await afterAttempts(attempt)
      const waits: number[] = []
      await working(
        () => Promise.resolve(later('not yet')),
        () => expect(waits.length).toBeGreaterThan(0),
        { settled: async () => void waits.push((await standing(id))?.waits ?? 0) },
      )
      // Asked for at once: what a slow machine may lose meanwhile is allowed for.
      expect(waits[0]).toBeLessThanOrEqual(1.5 * seconds)
      expect(waits[0]).toBeGreaterThan(0.5 * seconds - 2)
    },
  )
})

describe('what waits without a time of its own', () => {
  it.each([
    ['at first', 1, 1, 0.5],
    ['after it waited three times', 4, 1, 4],
    ['after it waited three times and failed twice', 6, 3, 4],
    ['after hours', 500, 1, 60],
  ])('is looked at again after longer each time: %s', async (_, claims, attempts, seconds) => {
    const id = await addTask(await addRun('running'), 'waiting')
    await schema.pool.query(
      `UPDATE tasks
       SET lease_epoch = ?, attempts = ?`,
      [claims - 1, attempts - 1],
    )
    const due: number[] = []
    await working(
      () => Promise.resolve(waits('the platform cannot be reached', null)),
      () => expect(due.length).toBeGreaterThan(0),
      { settled: async () => void due.push((await standing(id))?.waits ?? 0) },
    )
    expect(due[0]).toBeLessThanOrEqual(1.5 * seconds)
    expect(due[0]).toBeGreaterThan(0.5 * seconds - 2)
  })
})

describe('what is thrown', () => {
  it.each([
    [new Error('a fault of ours'), 'something failed here; it is tried again'],
    [driverFault('ECONNREFUSED'), 'the database was away; it is tried again'],
    [
      driverFault('ER_DISK_FULL'),
      'the database has no room left on its disk, which is for an administrator to mend; it is tried again',
    ],
  ])('is tried again later, and whoever follows the run reads why: %s', async (cause, why) => {
    const run = await addRun('running')
    const id = await addTask(run, 'waiting')
    const settled = vi.fn(() => Promise.resolve())
    const errors: string[] = []
    const log = pino({ level: 'error' }, { write: (line: string) => void errors.push(line) })
    await working(
      () => Promise.reject(cause),
      async () => expect(await standing(id)).toMatchObject({ state: 'waiting', message: why }),
      { settled },
      log,
    )
    expect(settled).toHaveBeenCalledWith(run)
    expect(errors[0]).toContain(`"task":${id}`)
    expect(errors[0]).toContain(cause.message)
  })
  it('by what asks for tasks does not end the worker', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    const lines: string[] = []
    const causes = [driverFault('ECONNREFUSED'), new Error('a fault of ours')]
    await working(
      () => Promise.resolve(failed('it was carried out')),
      async () => expect(await stateOf(id)).toBe('failed'),
      {
        concurrency: 1,
        isOurs: () => {
          const cause = causes.shift()
          return cause ? Promise.reject(cause) : Promise.resolve(true)
        },
      },
      pino({ level: 'warn' }, { write: (line: string) => void lines.push(line) }),
    )
    expect(lines.map((line) => (JSON.parse(line) as { msg: string }).msg)).toEqual([
      'the database is away; trying again',
      'a task could not be claimed, or its end not kept; trying again',
    ])
  })
})

describe('giving up', () => {
  const given = async (id: number) => {
    const { state, message } = (await standing(id)) ?? {}
    return [state, message]
  }
  it('comes after twelve attempts, but never for what was sent', async () => {
    const run = await addRun('running')
    const waiting = await addTask(run, 'waiting', courses[1])
    const followed = await addTask(run, 'sent', courses[2])
    await afterAttempts(12)
    await working(
      () => Promise.resolve(later('not yet', 60)),
      async () =>
        expect([await given(waiting), await given(followed)]).toEqual([
          ['failed', 'not yet; given up after 12 attempts'],
          ['sent', 'not yet'],
        ]),
    )
  })
  it('comes not after eleven', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    await afterAttempts(11)
    await working(
      () => Promise.resolve(later('not yet', 60)),
      async () => expect(await given(id)).toEqual(['waiting', 'not yet']),
    )
  })
  it('comes not while nobody knows what became of what was sent', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    await afterAttempts(12)
    await working(
      () => Promise.resolve({ ...fateUnknown('no answer came'), afterSeconds: 60 } as TaskOutcome),
      async () => expect(await given(id)).toEqual(['waiting', 'no answer came']),
    )
  })
  it('comes not while something else is to end first: that is no attempt', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    await afterAttempts(12)
    let looked = 0
    await working(
      () => Promise.resolve(waits('another run is at work in this course', 0.05 * (looked += 1))),
      async () => {
        expect(looked).toBeGreaterThanOrEqual(4)
        expect(await given(id)).toEqual(['waiting', 'another run is at work in this course'])
      },
    )
    const [row] = await schema.rows<{ attempts: number }>(`SELECT attempts
      FROM tasks`)
    expect(row?.attempts).toBe(11)
  })
  it('comes not where it was sent in this attempt, and something failed after that', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    await afterAttempts(12)
    await working(
      async ({ task }) => {
        if (task.sent === null) await markSent(schema.pool, task, sent)
        throw new Error('a fault of ours')
      },
      async () =>
        expect(await given(id)).toEqual(['sent', 'something failed here; it is tried again']),
    )
    const [row] = await schema.rows<{ idempotency_key: string | null }>(
      `SELECT idempotency_key
       FROM tasks`,
    )
    expect(row?.idempotency_key).toBe(sent.key)
  })
})

describe('a worker', () => {
  it('whose lease another took over says nothing of the task any more', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    const settled = vi.fn(() => Promise.resolve())
    await working(
      async ({ lease }) => {
        await schema.pool.query(`UPDATE tasks
          SET lease_epoch = lease_epoch + 1`)
        await new Promise<void>((resolve) => lease.addEventListener('abort', () => resolve()))
        return failed('told by nobody')
      },
      async () => {
        const [task] = await schema.rows<{ lease_epoch: number }>(`SELECT lease_epoch
          FROM tasks`)
        expect(task?.lease_epoch).toBeGreaterThan(8)
      },
      { leaseSeconds: 1, settled },
    )
    expect(settled).not.toHaveBeenCalled()
    expect(await stateOf(id)).not.toBe('failed')
  })
  it('takes nothing on a schema that is not its own, until it is', async () => {
    const id = await addTask(await addRun('running'), 'waiting')
    let asked = 0
    const carryOut = vi.fn(() => Promise.resolve(failed('it was carried out')))
    await working(
      carryOut,
      async () => {
        if (asked < 2) expect(carryOut).not.toHaveBeenCalled()
        expect(await stateOf(id)).toBe('failed')
      },
      {
        concurrency: 1,
        isOurs: () => {
          asked += 1
          return Promise.resolve(asked >= 2)
        },
      },
    )
    expect(asked).toBeGreaterThanOrEqual(2)
  })
  it('holds one task in each of its lanes, and as many as it has lanes', async () => {
    const run = await addRun('running')
    for (const course of courses.slice(0, 8)) await addTask(run, 'waiting', course)
    let [atOnce, most] = [0, 0]
    await working(
      async () => {
        most = Math.max(most, (atOnce += 1))
        // Long enough for the other lane to take one as well.
        if (most < 2) await vi.waitFor(() => expect(most).toBe(2), { timeout: 10_000 })
        atOnce -= 1
        return failed('it was carried out')
      },
      async () =>
        expect(
          await schema.rows(`SELECT id
            FROM tasks
            WHERE state = 'failed'`),
        ).toHaveLength(8),
    )
    expect(most).toBe(2)
  })
  it('puts back what workers that are gone held, and says so', async () => {
    const id = await addTask(await addRun('running'), 'at-work')
    const collected = vi.fn(() => Promise.resolve())
    const carryOut = vi.fn(() => Promise.resolve(failed('it was carried out')))
    await working(carryOut, async () => expect(await stateOf(id)).toBe('failed'), {
      leaseSeconds: 2,
      collected,
    })
    expect([collected.mock.calls.length > 0, carryOut.mock.calls.length]).toEqual([true, 1])
  })
  it('does what is to be done now and then beside its tasks', async () => {
    const done = vi.fn(() => Promise.resolve())
    await working(
      () => Promise.resolve({ state: 'done' }),
      () => expect(done.mock.calls.length).toBeGreaterThanOrEqual(2),
      { chores: [{ what: 'reads the clock', everySeconds: 0.05, work: done }] },
    )
  })
  it('waits for the task in its hands when it is stopped, and takes no other', async () => {
    const run = await addRun('running')
    const [first, second] = [
      await addTask(run, 'waiting', courses[1]),
      await addTask(run, 'waiting', courses[2]),
    ]
    let finish: () => void = () => undefined
    const mayFinish = new Promise<void>((resolve) => (finish = resolve))
    const carryOut = vi.fn(async () => {
      await mayFinish
      return failed('it was carried out')
    })
    const { stop } = worker(carryOut, { concurrency: 1 })
    await vi.waitFor(() => expect(carryOut).toHaveBeenCalled(), { timeout: 20_000 })
    const stopped = stop()
    finish()
    await stopped
    expect([await stateOf(first), await stateOf(second)]).toEqual(['failed', 'waiting'])
  })
})
