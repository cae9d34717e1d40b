import { randomUUID } from 'node:crypto'
import type { Pool } from 'mysql2/promise'
import { readDocument, type Course } from '@wickerframe/core'
import { ChangeSet, type ChangeSetAnswer } from '@wickerframe/contract'
import { inTransaction, type Database } from '@wickerframe/storage'
import { z } from 'zod'
import type { Connector } from '../connector/client.ts'
import { digestOf } from '../digest.ts'
import { findCourse, type StoredCourse } from '../repositories/courses.ts'
import { hasUnresolvedKey } from '../repositories/deployments.ts'
import { finishTask, forgetKey, markSent, type ClaimedTask } from '../repositories/runs.ts'
import { storeSnapshot } from '../repositories/snapshots.ts'
import { failed, fateUnknown, later, LostLease, type TaskOutcome } from './outcome.ts'

/** What is written down before it is sent: the change set, and what the task needs to know of it when the answer comes. */
const Payload = z.strictObject({ platformId: z.string(), set: ChangeSet, note: z.unknown() })

/** What a kind of task adds to the sending of change sets. `note` is kept beside the set and comes back with the answer. */
export interface ChangeSetWork<N> {
  note: z.ZodType<N>
  /** The changes for the course as it stands now, or how the task ends without any. */
  plan: (stored: StoredCourse, course: Course) => Promise<{ changes: ChangeSet['changes']; note: N } | { outcome: TaskOutcome } | { nothing: string }>
  /** Keeps what came of it, in the transaction that ends the task. @returns what to say of it */
  keep: (database: Database, key: string, set: ChangeSet, note: N, answer: ChangeSetAnswer) => Promise<void>
  /** What the task says when it is done. */
  done: (note: N) => string
}

const plannedAgain = 3

/**
 * Sends a change set to one course, exactly once. A set whose fate is not known is always asked for again under its own
 * key, before anything else; only then is a new plan made.
 */
export const runChangeSetTask = async <N>(pool: Pool, connector: Connector, task: ClaimedTask, today: string, work: ChangeSetWork<N>): Promise<TaskOutcome> => {
  for (let round = 0; round < plannedAgain; round++) {
    if (!task.sent) {
      const prepared = await prepare(pool, connector, task, today, work)
      if ('outcome' in prepared) return prepared.outcome
      if (!(await inTransaction(pool, (database) => markSent(database, task, prepared.sent)))) return { state: 'lost-lease' }
      task.sent = prepared.sent
    }
    const { sent } = task
    const payload = readDocument(Payload, JSON.parse(sent.payload))
    const note = payload.ok ? readDocument(work.note, payload.value.note) : payload
    if (!payload.ok || !note.ok) return failed('what was sent is stored in a form that cannot be read')
    const answer = await connector.apply(payload.value.platformId, sent.key, payload.value.set)
    switch (answer.state) {
      case 'answered':
        return settle(pool, task, sent.key, payload.value.set, note.value as N, answer.value, work)
      case 'later':
        return later(answer.detail, answer.afterSeconds)
      case 'unknown':
        return fateUnknown(`${answer.detail}; asking again under the same key`)
      case 'refused':
        if (answer.code !== 'stale-revision' && answer.code !== 'voided') return failed(`the platform refused: ${answer.detail}`)
        if (!(await inTransaction(pool, (database) => forgetKey(database, task)))) return { state: 'lost-lease' }
        task.sent = null
    }
  }
  return later('the course keeps being edited while it is planned')
}

const prepare = async <N>(pool: Pool, connector: Connector, task: ClaimedTask, today: string, work: ChangeSetWork<N>): Promise<{ sent: NonNullable<ClaimedTask['sent']> } | { outcome: TaskOutcome }> => {
  if (await hasUnresolvedKey(pool, task.courseId, task.id)) return { outcome: later('another run is at work in this course', 2) }
  const stored = await findCourse(pool, task.courseId, 'system', today)
  if (!stored) return { outcome: failed('the course is gone') }
  const { platformId } = stored.summary
  const read = await connector.snapshot(platformId)
  if (read.state === 'refused') return { outcome: failed(read.status === 404 ? `the platform has no course ${platformId}` : `the platform refused: ${read.detail}`) }
  if (read.state !== 'answered') return { outcome: later(read.detail, read.state === 'later' ? read.afterSeconds : null) }
  const planned = await work.plan(stored, read.value)
  if ('outcome' in planned) return planned
  if ('nothing' in planned) {
    await inTransaction(pool, async (database) => {
      await storeSnapshot(database, task.courseId, read.value)
      if (!(await finishTask(database, task, 'done', planned.nothing))) throw new LostLease()
    })
    return { outcome: { state: 'done' } }
  }
  const payload = { platformId, set: { expectedRevision: read.value.revision, changes: planned.changes }, note: planned.note }
  return { sent: { key: randomUUID(), payloadDigest: digestOf(payload), payload: JSON.stringify(payload) } }
}

/** Keeps what the platform did, all in one transaction, with the end of the task. */
const settle = async <N>(pool: Pool, task: ClaimedTask, key: string, set: ChangeSet, note: N, answer: ChangeSetAnswer, work: ChangeSetWork<N>): Promise<TaskOutcome> => {
  try {
    await inTransaction(pool, async (database) => {
      if (!(await finishTask(database, task, 'done', work.done(note)))) throw new LostLease()
      await work.keep(database, key, set, note, answer)
      await storeSnapshot(database, task.courseId, answer.course)
    })
  } catch (cause) {
    if (cause instanceof LostLease) return { state: 'lost-lease' }
    throw cause
  }
  return { state: 'done' }
}
