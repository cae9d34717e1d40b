import type { Pool } from 'mysql2/promise'
import type { Logger } from 'pino'
import { databaseTrouble } from '@wickerframe/storage'
import type { InstitutionClock } from '../clocks.ts'
import type { Connector } from '../connector/client.ts'
import { closeFinishedRun, closeFinishedRuns } from '../repositories/runs.ts'
import {
  claimTask,
  collectExpired,
  finishTask,
  postponeTask,
  renewLease,
  type ClaimedTask,
} from '../repositories/tasks.ts'
import { runCheckTask } from './checkTask.ts'
import { keepHouse } from './housekeeping.ts'
import type { Judge } from './judgePool.ts'
import type { TaskOutcome } from './outcome.ts'
import { runMendTask } from './mendTask.ts'
import { runPlanTask } from './planTask.ts'
import { runRenameTask } from './renameTask.ts'
import { runRolloutTask } from './rolloutTask.ts'

export interface WorkerSettings {
  /** Of this process. */
  name: string
  leaseSeconds: number
  concurrency: number
  clock: InstitutionClock
  /** Where students reach Wickerframe. */
  publicUrl: string
  /** Judges a course in a thread of its own. */
  judge: Judge
  /** Whether the schema is the one this program is made for; it works on no other. */
  isOurs: () => Promise<boolean>
}

type Runner = (
  pool: Pool,
  connector: Connector,
  task: ClaimedTask,
  today: string,
  publicUrl: string,
  judge: Judge,
) => Promise<TaskOutcome>
const runners: Readonly<Record<ClaimedTask['kind'], Runner>> = {
  rollout: runRolloutTask,
  renames: runRenameTask,
  mends: runMendTask,
  check: runCheckTask,
}

/** Why a task is tried again, for whoever follows its run. */
const whyAgain = (cause: unknown): string => {
  const trouble = databaseTrouble(cause)
  if (trouble === 'full')
    return 'the database has no room left on its disk, which is for an administrator to mend; it is tried again'
  if (trouble === 'away') return 'the database was away; it is tried again'
  return 'something failed here; it is tried again'
}

const mostAttempts = 12
const idleMilliseconds = 250
const housekeepingMilliseconds = 60_000

/** Seconds to wait before the next attempt: doubling, with jitter, at most a minute. */
const backoff = (attempts: number): number =>
  Math.min(60, 0.5 * 2 ** (attempts - 1)) * (0.5 + Math.random())

/**
 * Claims tasks and works them off until it is stopped. Each of its lanes holds one task at a time, renews its lease, and
 * writes nothing once the lease is lost. A lane whose database is away waits and goes on.
 */
export const startWorker = (
  pool: Pool,
  connector: Connector,
  settings: WorkerSettings,
  log: Logger,
): { stop: () => Promise<void> } => {
  let stopping = false
  const pause = (milliseconds: number) =>
    new Promise((resolve) => setTimeout(resolve, milliseconds))

  const work = async (task: ClaimedTask): Promise<void> => {
    const heartbeat = setInterval(
      () => void renewLease(pool, task, settings.leaseSeconds).catch(() => undefined),
      (settings.leaseSeconds * 1000) / 3,
    )
    let outcome: TaskOutcome
    try {
      outcome = task.toPlan
        ? await runPlanTask(pool, connector, task, settings.clock.today(), settings.publicUrl)
        : await runners[task.kind](
            pool,
            connector,
            task,
            settings.clock.today(),
            settings.publicUrl,
            settings.judge,
          )
    } catch (cause) {
      log.error({ err: cause, task: task.id }, 'task')
      outcome = { state: 'later', message: whyAgain(cause), afterSeconds: null, fateUnknown: false }
    } finally {
      clearInterval(heartbeat)
    }
    if (outcome.state === 'later') {
      // What was sent is followed until its fate is known, however long that takes; the rest is given up in the end.
      const followed = task.sent !== null || outcome.fateUnknown
      if (task.attempts >= mostAttempts && !followed)
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
          outcome.afterSeconds ?? backoff(Math.min(task.attempts, 8)),
          outcome.message,
        )
    } else if (outcome.state === 'failed' || outcome.state === 'held')
      await finishTask(pool, task, outcome.state, outcome.message)
    await closeFinishedRun(pool, task.runId)
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
        log.warn({ err: cause }, 'the database did not answer; trying again')
        await pause(1000)
      }
    }
  }
  const collector = setInterval(
    () =>
      void collectExpired(pool)
        .then(() => closeFinishedRuns(pool))
        .catch(() => undefined),
    Math.max(500, settings.leaseSeconds * 250),
  )
  const housekeeping = setInterval(
    () => void keepHouse(pool).catch((cause: unknown) => log.warn({ err: cause }, 'housekeeping')),
    housekeepingMilliseconds,
  )
  const lanes = Array.from({ length: settings.concurrency }, lane)
  return {
    stop: async () => {
      stopping = true
      clearInterval(collector)
      clearInterval(housekeeping)
      await Promise.all(lanes)
    },
  }
}
