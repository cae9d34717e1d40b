import type { Pool } from 'mysql2/promise'
import { inTransaction } from '@wickerframe/storage'
import type { Connector } from '../connector/client.ts'
import { findCourse } from '../repositories/courses.ts'
import { finishTask, type ClaimedTask } from '../repositories/runs.ts'
import { prepareSnapshot, storeSnapshot } from '../repositories/snapshots.ts'
import { judgeCourse, storeJudgement } from './judgeCourse.ts'
import { failed, later, LostLease, type TaskOutcome } from './outcome.ts'

/** Reads a course from the platform and checks it, unless the very same question was answered before. */
export const runCheckTask = async (pool: Pool, connector: Connector, task: ClaimedTask, today: string): Promise<TaskOutcome> => {
  const asOf = task.asOf ?? today
  const before = await findCourse(pool, task.courseId, 'system', asOf)
  if (!before) return failed('the course is gone')
  const read = await connector.snapshot(before.summary.platformId)
  if (read.state === 'refused') return failed(read.status === 404 ? `the platform has no course ${before.summary.platformId}` : `the platform refused: ${read.detail}`)
  if (read.state !== 'answered') return later(read.detail, read.state === 'later' ? read.afterSeconds : null)
  const prepared = await prepareSnapshot(pool, read.value)
  await inTransaction(pool, (database) => storeSnapshot(database, task.courseId, prepared))
  const end = async (message: string): Promise<TaskOutcome> => ((await finishTask(pool, task, 'done', message)) ? { state: 'done' } : { state: 'lost-lease' })
  const stored = await findCourse(pool, task.courseId, 'system', asOf)
  if (!stored) return failed('the course is gone')
  const judgement = await judgeCourse(pool, stored, asOf, today)
  if (judgement.state === 'no-template') return end('read; it is under no template, so there is nothing to check it against')
  if (judgement.state === 'known') return end('unchanged since the last check')
  if (judgement.state === 'unusable') return failed(judgement.reason)
  const { counts } = judgement.result
  try {
    await inTransaction(pool, async (database) => {
      await storeJudgement(database, task.courseId, judgement, today)
      if (!(await finishTask(database, task, 'done', `${counts.met} of ${counts.requirements} requirements met`))) throw new LostLease()
    })
  } catch (cause) {
    if (cause instanceof LostLease) return { state: 'lost-lease' }
    throw cause
  }
  return { state: 'done' }
}
