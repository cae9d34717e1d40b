import { randomUUID } from 'node:crypto'
import type { Pool } from 'mysql2/promise'
import { everyExpected, readDocument, type ExpectedCourse, type RecordedPart } from '@wickerframe/core'
import { ChangeSet, type ChangeSetAnswer } from '@wickerframe/contract'
import { inTransaction, type Database } from '@wickerframe/storage'
import { z } from 'zod'
import type { Connector } from '../connector/client.ts'
import { digestOf } from '../digest.ts'
import { recordAudit } from '../repositories/audit.ts'
import { findCourse } from '../repositories/courses.ts'
import { findBase, hasUnresolvedKey, recordBases, recordDeployment } from '../repositories/deployments.ts'
import { finishTask, forgetKey, markSent, type ClaimedTask } from '../repositories/runs.ts'
import { storeSnapshot } from '../repositories/snapshots.ts'
import { findVersionById } from '../repositories/templates.ts'
import { engineVersion, planFor } from './deploymentPlan.ts'
import { failed, fateUnknown, later, LostLease, type TaskOutcome } from './outcome.ts'

/** What is written down before it is sent: the change set, and what we need to know of it when the answer comes. */
const Payload = z.strictObject({
  platformId: z.string(),
  set: ChangeSet,
  creates: z.array(z.strictObject({ instance: z.string(), part: z.string(), repetition: z.string().nullable(), number: z.number().nullable() })),
  expansion: z.array(z.unknown()),
})
type Payload = z.output<typeof Payload>

const plannedAgain = 3

/** The parts of an expansion, as the history of a course keeps them. */
const expansionRecord = (expected: ExpectedCourse) =>
  [expected.home, ...everyExpected(expected.parts)].map((part) => ({ instance: part.instance, name: part.name, strength: part.strength, opensAt: part.opensAt, dueAt: part.dueAt }))

/**
 * Deploys to one course. A change set whose fate is not known is always asked for again under its own key, before
 * anything else; only then is a new plan made.
 */
export const runRolloutTask = async (pool: Pool, connector: Connector, task: ClaimedTask, today: string): Promise<TaskOutcome> => {
  if (task.templateId === null || task.version === null) return failed('the rollout names no version')
  let sent = task.sent
  for (let round = 0; round < plannedAgain; round++) {
    if (!sent) {
      const prepared = await prepare(pool, connector, task, today)
      if ('outcome' in prepared) return prepared.outcome
      sent = prepared.sent
      if (!(await markSent(pool, task, sent))) return { state: 'lost-lease' }
    }
    const payload = readDocument(Payload, JSON.parse(sent.payload))
    if (!payload.ok) return failed('what was sent is stored in a form that cannot be read')
    const answer = await connector.apply(payload.value.platformId, sent.key, payload.value.set)
    switch (answer.state) {
      case 'answered':
        return settle(pool, task, sent.key, payload.value, answer.value)
      case 'later':
        return later(answer.detail, answer.afterSeconds)
      case 'unknown':
        return fateUnknown(`${answer.detail}; asking again under the same key`)
      case 'refused':
        if (answer.code !== 'stale-revision' && answer.code !== 'voided') return failed(`the platform refused: ${answer.detail}`)
        if (!(await forgetKey(pool, task))) return { state: 'lost-lease' }
        sent = null
    }
  }
  return later('the course keeps being edited while it is planned')
}

const prepare = async (pool: Pool, connector: Connector, task: ClaimedTask, today: string): Promise<{ sent: NonNullable<ClaimedTask['sent']> } | { outcome: TaskOutcome }> => {
  if (await hasUnresolvedKey(pool, task.courseId, task.id)) return { outcome: later('another rollout is at work in this course', 2) }
  const stored = await findCourse(pool, task.courseId, 'system', today)
  const version = task.templateId === null || task.version === null ? null : await findVersionById(pool, task.templateId, task.version)
  if (!stored || !version) return { outcome: failed('the course or the version is gone') }
  const read = await connector.snapshot(stored.summary.platformId)
  if (read.state === 'refused') return { outcome: failed(read.status === 404 ? `the platform has no course ${stored.summary.platformId}` : `the platform refused: ${read.detail}`) }
  if (read.state !== 'answered') return { outcome: later(read.detail, read.state === 'later' ? read.afterSeconds : null) }
  const base = await findBase(pool, task.courseId)
  const planned = planFor(version.document, stored.facts, read.value, base, today)
  if (!planned.ok) return { outcome: failed(`the template does not fit the course: at ${planned.problems[0]?.path}, found ${planned.problems[0]?.found}; expected ${planned.problems[0]?.expected}`) }
  const { plan, digest, expected } = planned.value
  if (digest !== task.planDigest) return { outcome: failed('the course was changed after the plan was approved, and the plan would be another now; plan it again') }
  if (plan.state === 'left-out') return { outcome: failed(plan.reason) }
  if (plan.state === 'nothing-to-do') {
    await inTransaction(pool, async (database) => {
      await storeSnapshot(database, task.courseId, read.value)
      if (!(await finishTask(database, task, 'done', 'nothing to do'))) throw new LostLease()
    })
    return { outcome: { state: 'done' } }
  }
  for (const asset of version.document.assets) {
    const put = await connector.putAsset(asset.fileName, new TextEncoder().encode(asset.svg))
    if (put.state === 'refused') return { outcome: failed(`the platform refused the image ${asset.fileName}: ${put.detail}`) }
    if (put.state !== 'answered') return { outcome: later(put.detail, put.state === 'later' ? put.afterSeconds : null) }
  }
  const payload: Payload = { platformId: stored.summary.platformId, set: { expectedRevision: read.value.revision, changes: plan.changes }, creates: plan.creates, expansion: expansionRecord(expected) }
  return { sent: { key: randomUUID(), payloadDigest: digestOf(payload), payload: JSON.stringify(payload) } }
}

/** Keeps what the platform did, all in one transaction: receipt, bases, snapshot, and the end of the task. */
const settle = async (pool: Pool, task: ClaimedTask, key: string, payload: Payload, answer: ChangeSetAnswer): Promise<TaskOutcome> => {
  const creates: RecordedPart[] = payload.creates
  try {
    await inTransaction(pool, async (database: Database) => {
      if (!(await finishTask(database, task, 'done', `${creates.length} parts created`))) throw new LostLease()
      await recordDeployment(
        database,
        { courseId: task.courseId, runId: task.runId, templateId: task.templateId ?? 0, version: task.version ?? 0, by: task.by, engine: engineVersion, idempotencyKey: key, expansion: payload.expansion },
        creates.length,
      )
      await recordBases(database, task.courseId, creates, payload.set.changes, answer.ids, answer.course)
      await storeSnapshot(database, task.courseId, answer.course)
      await recordAudit(database, { who: task.by, what: 'deployed', subject: `course ${task.courseId}`, to: { run: task.runId, parts: creates.length } })
    })
  } catch (cause) {
    if (cause instanceof LostLease) return { state: 'lost-lease' }
    throw cause
  }
  return { state: 'done' }
}
