import { inTransactionNaming } from '../snapshots/courseBodies.ts'
import { markHeldAnew } from './heldAnew.ts'
import { findCourse } from '../courses/courses.ts'
import { unanswered } from '../connector/unanswered.ts'
import type { Job } from '../queue/job.ts'
import { finishTask } from '../queue/tasks.ts'
import { storeRead } from '../history/courseEdits.ts'
import { prepareSnapshot } from '../snapshots/snapshots.ts'
import { failed, later, type TaskOutcome } from '../queue/outcome.ts'

/**
 * Reads a course from the platform and checks it, unless the very same question was answered before. The answer is kept
 * before the task ends: a task that is worked again finds it known.
 */
export const runCheckTask = async ({
  pool,
  connector,
  task,
  today,
  checkCourse,
}: Job): Promise<TaskOutcome> => {
  const asOf = task.asOf ?? today
  const before = await findCourse(pool, task.courseId, 'system', asOf)
  if (!before) return failed('the course is gone')
  const read = await connector.snapshot(before.summary.platformId)
  if (read.state === 'refused')
    return failed(
      read.status === 404
        ? `the platform has no course ${before.summary.platformId}`
        : `the platform refused: ${read.detail}`,
    )
  if (read.state !== 'answered') return unanswered(read)
  const prepared = prepareSnapshot(read.value)
  await inTransactionNaming(pool, prepared.bodies.html, (database) =>
    storeRead(database, task.courseId, prepared, today),
  )
  return checkAndFinish({ pool, task, today, checkCourse })
}

/**
 * Checks a course again from what is stored of it, for it is held to something else since; what was told before, of whatever
 * date, is not shown any more from now on.
 */
export const runRecheckTask = async (job: Job): Promise<TaskOutcome> => {
  await markHeldAnew(job.pool, job.task.courseId)
  return checkAndFinish(job)
}

/** Checks a course from what is stored of it, and ends the task; the platform is not asked. */
const checkAndFinish = async ({
  pool,
  task,
  today,
  checkCourse,
}: Pick<Job, 'pool' | 'task' | 'today' | 'checkCourse'>): Promise<TaskOutcome> => {
  const end = async (message: string): Promise<TaskOutcome> =>
    (await finishTask(pool, task, 'done', message)) ? { state: 'done' } : { state: 'lost-lease' }
  const answer = await checkCourse(task.courseId, task.asOf ?? today, today)
  switch (answer.state) {
    case 'no-template':
      return end('read; it is under no template, so there is nothing to check it against')
    case 'known':
      return end('unchanged since the last check')
    case 'gone':
      return failed('the course is gone')
    case 'unusable':
      return failed(answer.reason)
    case 'failed':
      return later(answer.message, null)
    case 'checked':
      return end(`${answer.met} of ${answer.requirements} requirements met`)
  }
}
