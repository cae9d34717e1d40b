import type { Pool } from 'mysql2/promise'
import type { CheckCourse, ForeseeCourse } from '../checks/checkPool.ts'
import type { Connector } from '../connector/client.ts'
import type { InstitutionDay } from '../start/clocks.ts'
import type { TaskOutcome } from './outcome.ts'
import type { ClaimedTask } from './tasks.ts'

/** What whoever carries a task out may use. */
export interface Job {
  pool: Pool
  connector: Connector
  /** Checks a course in a thread of its own. */
  checkCourse: CheckCourse
  /** Holds the draft of a run against a course, in a thread of its own. */
  foreseeCourse: ForeseeCourse
  task: ClaimedTask
  /** By the institution’s clock. */
  today: InstitutionDay
  /** Where students reach Wickerframe. */
  publicUrl: string
  /** Aborted once the lease was not renewed in time: another worker may hold the task by now, and nothing is begun any more. */
  lease: AbortSignal
}

/** Carries a task out. What is thrown is tried again later. */
export type CarryOut = (job: Job) => Promise<TaskOutcome>
