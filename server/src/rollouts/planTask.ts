import type { PlanSummary } from '@wickerframe/contract'
import { digestOf } from '../digest.ts'
import { inTransactionNaming, nameBodies, type ReadyBodies } from '../snapshots/courseBodies.ts'
import { unanswered } from '../connector/unanswered.ts'
import { findCourse } from '../courses/courses.ts'
import { baseRevision } from './bases.ts'
import { isToBeWritten } from './deployments.ts'
import type { Job } from '../queue/job.ts'
import { finishTask, keepPlan } from '../queue/tasks.ts'
import { storeRead } from '../history/courseEdits.ts'
import { prepareSnapshot } from '../snapshots/snapshots.ts'
import { planCourse, planInputs } from './deploymentPlan.ts'
import { orderOf } from './rolloutOrder.ts'
import { failed, LostLease, waits, type TaskOutcome } from '../queue/outcome.ts'
import { madeOf } from './rolloutTask.ts'

const unusableSummary = (reason: string): PlanSummary => ({
  state: 'unusable',
  reason,
  shape: `unusable ${digestOf(reason).slice(0, 16)}`,
  lines: [],
  unchanged: 0,
  undecided: 0,
  additive: false,
  consequences: [],
  digest: digestOf({ unusable: reason }),
})

/** Reads a course and plans for it; nothing is written to the platform. */
export const runPlanTask = async ({
  pool,
  connector,
  task,
  today,
  publicUrl,
}: Job): Promise<TaskOutcome> => {
  const rollout = orderOf(task.order)
  if (!rollout) return failed('the rollout has no order')
  if (await isToBeWritten(pool, task.courseId, task.runId))
    return waits('another run is still to come to this course', null)
  const order = {
    order: rollout.order,
    decisions: { rule: rollout.rule, single: task.decisions },
    sourceCourseId: task.sourceCourseId,
  }
  const revision = await baseRevision(pool, task.courseId)
  const stored = await findCourse(pool, task.courseId, 'system', today)
  if (!stored) return failed('the course is gone')
  const read = await connector.snapshot(stored.summary.platformId)
  if (read.state === 'later' || read.state === 'unknown') return unanswered(read)
  const snapshot = read.state === 'answered' ? prepareSnapshot(read.value) : null
  if (task.sourceCourseId !== null) {
    const source = await findCourse(pool, task.sourceCourseId, 'system', today)
    const readSource = source && (await connector.snapshot(source.summary.platformId))
    if (!source || !readSource || readSource.state === 'refused')
      return failed('the course it comes from cannot be read')
    if (readSource.state !== 'answered') return unanswered(readSource)
    const prepared = prepareSnapshot(readSource.value)
    await inTransactionNaming(pool, prepared.bodies.html, (database) =>
      storeRead(database, source.summary.id, prepared, today),
    )
  }
  const planned =
    read.state === 'answered'
      ? await planCourse(pool, order, stored, read.value, today)
      : {
          unusable:
            read.status === 404
              ? `the platform has no course ${stored.summary.platformId}`
              : `the platform did not give the course: ${read.detail}`,
        }
  // What would be sent is made ready now, so that the run itself has nothing to work out again.
  let prepared: { inputs: string; payload: string } | null = null
  let bodies: ReadyBodies | null = null
  if (read.state === 'answered' && !('unusable' in planned) && planned.summary.state === 'ready') {
    const made = madeOf(planned, read.value, publicUrl)
    const inputs = await planInputs(pool, order, stored, today, revision)
    if (made && made.changes.length > 0 && inputs !== null) {
      bodies = made.bodies
      prepared = {
        inputs: inputs.digest,
        payload: JSON.stringify({
          platformId: stored.summary.platformId,
          set: { expectedRevision: read.value.revision, changes: made.changes },
          note: made.note,
        }),
      }
    }
  }
  const summary = 'unusable' in planned ? unusableSummary(planned.unusable) : planned.summary
  try {
    const html = new Map([...(snapshot?.bodies.html ?? []), ...(bodies?.html ?? [])])
    await inTransactionNaming(pool, html, async (database) => {
      if (snapshot) await storeRead(database, task.courseId, snapshot, today)
      await nameBodies(database, task.courseId, bodies?.named ?? [])
      await keepPlan(database, task, summary, prepared)
      if (!(await finishTask(database, task, 'planned', summary.reason))) throw new LostLease()
    })
  } catch (cause) {
    if (cause instanceof LostLease) return { state: 'lost-lease' }
    throw cause
  }
  return { state: 'done' }
}
