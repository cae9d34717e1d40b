import type { Pool } from 'mysql2/promise'
import type { Logger } from 'pino'
import { databaseTrouble } from '@wickerframe/storage'
import type { CarryOut, Job } from './job.ts'
import { keepLease } from './lease.ts'
import { nowAndThen } from './nowAndThen.ts'
import type { TaskOutcome } from './outcome.ts'
import {
  claimTask,
  collectExpired,
  finishTask,
  isSent,
  postponeTask,
  renewLease,
  type ClaimedTask,
} from './tasks.ts'

export interface WorkerSettings {
  /** Of this process. */
  name: string
  leaseSeconds: number
  concurrency: number
  /** What a job is given besides its task. */
  jobOf: (task: ClaimedTask, lease: AbortSignal) => Job
  carryOut: CarryOut
  /** Whether the schema is the one this program is made for; it works on no other. */
  isOurs: () => Promise<boolean>
  /** Told when a task has ended or was put back, after its transaction has committed. */
  settled: (runId: number) => Promise<void>
  /** Told when tasks of workers that are gone were taken back. */
  collected: () => Promise<void>
  /** What has to be done now and then beside the tasks. */
  chores: readonly Chore[]
}
export interface Chore {
  what: string
  everySeconds: number
  work: () => Promise<void>
}

const mostAttempts = 12
const idleMilliseconds = 250

/** Seconds to wait before it is tried again, after so many times: doubling, with jitter, at most a minute. */
const backoff = (times: number): number =>
  Math.min(60, 0.5 * 2 ** (times - 1)) * (0.5 + Math.random())

/** Why a task is tried again, for whoever follows its run. */
const whyAgain = (cause: unknown): string => {
  const trouble = databaseTrouble(cause)
  if (trouble === 'full')
    return 'the database has no room left on its disk, which is for an administrator to mend; it is tried again'
  if (trouble === 'away') return 'the database was away; it is tried again'
  return 'something failed here; it is tried again'
}

/**
 * Claims tasks and works them off until it is stopped. Each of its lanes holds one task at a time, renews its lease, and
 * writes nothing once the lease is lost. A lane whose database is away waits and goes on.
 */
export const startWorker = (
  pool: Pool,
  settings: WorkerSettings,
  log: Logger,
): { stop: () => Promise<void> } => {
  let stopping = false
  const pause = (milliseconds: number) =>
    new Promise((resolve) => setTimeout(resolve, milliseconds))

  const work = async (task: ClaimedTask): Promise<void> => {
    const { lost, letGo } = keepLease(settings.leaseSeconds, () =>
      renewLease(pool, task, settings.leaseSeconds),
    )
    let outcome: TaskOutcome
    try {
      outcome = await settings.carryOut(settings.jobOf(task, lost))
    } catch (cause) {
      log.error({ err: cause, task: task.id }, 'task')
      outcome = { state: 'later', message: whyAgain(cause), afterSeconds: null, fateUnknown: false }
    } finally {
      letGo()
    }
    // Whoever holds it now says what becomes of it.
    if (lost.aborted) return
    await settle(task, outcome)
    await settings.settled(task.runId)
  }

  const settle = async (task: ClaimedTask, outcome: TaskOutcome): Promise<void> => {
    if (outcome.state === 'failed' || outcome.state === 'held')
      await finishTask(pool, task, outcome.state, outcome.message)
    if (outcome.state === 'waits')
      await postponeTask(
        pool,
        task,
        // Each claim has its epoch, and what was no attempt is not counted as one: the difference is how often it waited.
        outcome.afterSeconds ?? backoff(task.epoch - task.attempts + 1),
        outcome.message,
        false,
      )
    if (outcome.state !== 'later') return
    // What was sent is followed until its fate is known, however long that takes; the rest is given up in the end.
    if (task.attempts >= mostAttempts && !outcome.fateUnknown && !(await isSent(pool, task)))
      await finishTask(
        pool,
        task,
        'failed',
        `${outcome.message}; given up after ${task.attempts} attempts`,
      )
    else
      await postponeTask(
        pool,
        task,
        outcome.afterSeconds ?? backoff(task.attempts),
        outcome.message,
      )
  }

  const lane = async (): Promise<void> => {
    while (!stopping) {
      try {
        if (!(await settings.isOurs())) {
          await pause(1000)
          continue
        }
        const task = await claimTask(pool, settings.leaseSeconds, settings.name)
        if (task) await work(task)
        else await pause(idleMilliseconds)
      } catch (cause) {
        const trouble = databaseTrouble(cause)
        if (trouble === null)
          log.error(
            { err: cause },
            'a task could not be claimed, or its end not kept; trying again',
          )
        else log.warn({ err: cause }, `the database is ${trouble}; trying again`)
        await pause(1000)
      }
    }
  }
  const collector = setInterval(
    () =>
      void collectExpired(pool)
        .then(settings.collected)
        .catch(() => undefined),
    Math.max(500, settings.leaseSeconds * 250),
  )
  const chores = settings.chores.map(({ what, everySeconds, work: chore }) =>
    nowAndThen(what, everySeconds * 1000, chore, log),
  )
  const lanes = Array.from({ length: settings.concurrency }, lane)
  return {
    stop: async () => {
      stopping = true
      clearInterval(collector)
      await Promise.all([...lanes, ...chores.map((chore) => chore.stop())])
    },
  }
}
