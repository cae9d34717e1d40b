import type { Pool } from 'mysql2/promise'
import { analyserVersion, checkCourse, weaveColumns, weaveRow } from '@wickerframe/core'
import { inTransaction } from '@wickerframe/storage'
import type { Connector } from '../connector/client.ts'
import { digestOf } from '../digest.ts'
import { reuseCheck, storeCheck } from '../repositories/checks.ts'
import { findClashes } from '../repositories/cohort.ts'
import { findCourse } from '../repositories/courses.ts'
import { finishTask, type ClaimedTask } from '../repositories/runs.ts'
import { findSnapshot, prepareSnapshot, storeSnapshot } from '../repositories/snapshots.ts'
import { engineVersion, expectationOf } from './deploymentPlan.ts'
import { failed, later, LostLease, type TaskOutcome } from './outcome.ts'
import { keptPageFacts } from './pageCache.ts'

/** Reads a course from the platform and checks it, unless the very same question was answered before. */
export const runCheckTask = async (pool: Pool, connector: Connector, task: ClaimedTask, today: string): Promise<TaskOutcome> => {
  const asOf = task.asOf ?? today
  const stored = await findCourse(pool, task.courseId, 'system', asOf)
  if (!stored) return failed('the course is gone')
  const read = await connector.snapshot(stored.summary.platformId)
  if (read.state === 'refused') return failed(read.status === 404 ? `the platform has no course ${stored.summary.platformId}` : `the platform refused: ${read.detail}`)
  if (read.state !== 'answered') return later(read.detail, read.state === 'later' ? read.afterSeconds : null)
  const prepared = await prepareSnapshot(pool, read.value)
  await inTransaction(pool, (database) => storeSnapshot(database, task.courseId, prepared))
  const end = async (message: string): Promise<TaskOutcome> => ((await finishTask(pool, task, 'done', message)) ? { state: 'done' } : { state: 'lost-lease' })
  if (stored.templateId === null || stored.version === null) return end('read; it is under no template, so there is nothing to check it against')

  const template = await expectationOf(pool, stored)
  const snapshot = await findSnapshot(pool, task.courseId)
  if (!template || !snapshot) return failed('the version or the snapshot is gone')
  const identity = JSON.stringify(snapshot.course, (field, value: unknown) => (field === 'html' || field === 'readAt' || field === 'revision' ? undefined : value))
  const clashes = await findClashes(pool, task.courseId)
  const cacheKey = digestOf({ clashes, template: digestOf(template), facts: stored.facts, snapshot: snapshot.digest, identity, engine: engineVersion, analyser: analyserVersion })
  if (await reuseCheck(pool, task.courseId, cacheKey, asOf)) return end('unchanged since the last check')

  const checked = checkCourse({ template, facts: stored.facts, course: snapshot.course, asOf, pageOf: keptPageFacts, clashes })
  if (!checked.ok) return failed(`it cannot be checked: at ${checked.problems[0]?.path}, found ${checked.problems[0]?.found}; expected ${checked.problems[0]?.expected}`)
  const crossings = weaveRow(checked.value, template, weaveColumns([template], stored.facts.weeks))
  const { counts } = checked.value
  try {
    await inTransaction(pool, async (database) => {
      await storeCheck(database, task.courseId, cacheKey, checked.value, crossings)
      if (!(await finishTask(database, task, 'done', `${counts.met} of ${counts.requirements} requirements met`))) throw new LostLease()
    })
  } catch (cause) {
    if (cause instanceof LostLease) return { state: 'lost-lease' }
    throw cause
  }
  return { state: 'done' }
}
