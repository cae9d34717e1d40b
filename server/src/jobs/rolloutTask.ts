import type { Pool } from 'mysql2/promise'
import { everyExpected, type Change, type ExpectedCourse } from '@wickerframe/core'
import { z } from 'zod'
import type { Connector } from '../connector/client.ts'
import { houseTextAddress } from '../houseTextAddress.ts'
import { recordAudit } from '../repositories/audit.ts'
import { findBase, recordBases, recordDeployment } from '../repositories/deployments.ts'
import type { ClaimedTask } from '../repositories/runs.ts'
import { findVersionById } from '../repositories/templates.ts'
import { runChangeSetTask } from './changeSetTask.ts'
import { engineVersion, planFor } from './deploymentPlan.ts'
import { failed, later, type TaskOutcome } from './outcome.ts'

/** What a deployment must know when its answer comes: which parts it makes, and the expansion it was made from. */
const Note = z.strictObject({
  creates: z.array(z.strictObject({ instance: z.string(), part: z.string(), repetition: z.string().nullable(), number: z.number().nullable() })),
  expansion: z.array(z.unknown()),
})

/** The parts of an expansion, as the history of a course keeps them. */
const expansionRecord = (expected: ExpectedCourse) =>
  [expected.home, ...everyExpected(expected.parts)].map((part) => ({ instance: part.instance, name: part.name, strength: part.strength, opensAt: part.opensAt, dueAt: part.dueAt }))

/** Changes whose linked house texts lead to where they are kept. */
const withHouseTextAddresses = (changes: readonly Change[], publicUrl: string): Change[] =>
  changes.map((change) => (change.change === 'create-item' && change.fields.html !== undefined ? { ...change, fields: { ...change.fields, html: change.fields.html.replace(/href="house-text:([a-z0-9-]{1,80})"/g, (_, key: string) => `href="${houseTextAddress(publicUrl, key)}"`) } } : change))

/** Deploys the version of its run to one course. */
export const runRolloutTask = async (pool: Pool, connector: Connector, task: ClaimedTask, today: string, publicUrl: string): Promise<TaskOutcome> => {
  const { templateId, version: number } = task
  if (templateId === null || number === null) return failed('the rollout names no version')
  return runChangeSetTask<z.output<typeof Note>>(pool, connector, task, today, {
    note: Note,
    plan: async (stored, course) => {
      const version = await findVersionById(pool, templateId, number)
      if (!version) return { outcome: failed('the version is gone') }
      const planned = planFor(version.document, stored.facts, course, await findBase(pool, task.courseId), today)
      if (!planned.ok) return { outcome: failed(`the template does not fit the course: at ${planned.problems[0]?.path}, found ${planned.problems[0]?.found}; expected ${planned.problems[0]?.expected}`) }
      const { plan, digest, expected } = planned.value
      if (digest !== task.planDigest) return { outcome: failed('the course was changed after the plan was approved, and the plan would be another now; plan it again') }
      if (plan.state === 'left-out') return { outcome: failed(plan.reason) }
      if (plan.state === 'nothing-to-do') return { nothing: 'nothing to do' }
      for (const asset of version.document.assets) {
        const put = await connector.putAsset(asset.fileName, new TextEncoder().encode(asset.svg))
        if (put.state === 'refused') return { outcome: failed(`the platform refused the image ${asset.fileName}: ${put.detail}`) }
        if (put.state !== 'answered') return { outcome: later(put.detail, put.state === 'later' ? put.afterSeconds : null) }
      }
      return { changes: withHouseTextAddresses(plan.changes, publicUrl), note: { creates: plan.creates, expansion: expansionRecord(expected) } }
    },
    keep: async (database, key, set, { creates, expansion }, answer) => {
      await recordDeployment(database, { courseId: task.courseId, runId: task.runId, templateId, version: number, by: task.by, engine: engineVersion, idempotencyKey: key, expansion }, creates.length)
      await recordBases(database, task.courseId, creates, set.changes, answer.ids, answer.course)
      await recordAudit(database, { who: task.by, what: 'deployed', subject: `course ${task.courseId}`, to: { run: task.runId, parts: creates.length } })
    },
    done: ({ creates }) => `${creates.length} parts created`,
  })
}
