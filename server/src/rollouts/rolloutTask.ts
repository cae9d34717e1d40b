import {
  baseAfter,
  BeforeChanges,
  beforeChanges,
  bodiesBefore,
  bodiesOfBase,
  bodiesOfEntries,
  bodiesOfRecord,
  everyExpected,
  isWorkedOut,
  ownPrefix,
  NextBase,
  undoRecordOf,
  type Base,
  type Change,
  type Course,
  type ExpectedCourse,
  type UndoRecord,
} from '@wickerframe/core'
import { inTransaction, type Database } from '@wickerframe/storage'
import { z } from 'zod'
import { withPublicAddresses } from '../library/publicAddresses.ts'
import { recordAudit } from '../audit/audit.ts'
import { baseRevision, findBase, storeBase } from './bases.ts'
import { courseBodies, unnamedBodies, type ReadyBodies } from '../snapshots/courseBodies.ts'
import { holdCourseTo, heldToAfter, heldToState, HeldToState } from '../courses/courses.ts'
import { markInForceAgain, markUndone, recordDeployment } from './deployments.ts'
import { putAssets } from '../files/putAssets.ts'
import type { Job } from '../queue/job.ts'
import { keepPlan } from '../queue/tasks.ts'
import { runChangeSetTask, type Answered, type Proved, type Ready } from './changeSetTask.ts'
import {
  countsOf,
  engineVersion,
  planCourse,
  planInputs,
  planSentence,
  type PlannedCourse,
} from './deploymentPlan.ts'
import { orderOf } from './rolloutOrder.ts'
import { carryWaivers } from '../waivers/carryWaivers.ts'
import { failed, type TaskOutcome } from '../queue/outcome.ts'

/** What a deployment must know when its answer comes: what the base becomes, and how everything stood before. */
const Note = z.strictObject({
  next: NextBase,
  before: BeforeChanges,
  expansion: z.array(z.unknown()),
  counts: z.record(z.string(), z.number()),
  says: z.string(),
  heldTo: z
    .strictObject({
      templateId: z.number(),
      version: z.number(),
      partsTaken: z
        .strictObject({ only: z.array(z.string()).nullable(), except: z.array(z.string()) })
        .nullable(),
    })
    .nullable(),
  heldToAgain: HeldToState.nullable(),
  undoes: z.number().nullable(),
})
type Note = z.output<typeof Note>

/** The parts of an expansion, as the history of a course keeps them. */
const expansionRecord = (expected: ExpectedCourse | null) =>
  expected === null
    ? []
    : [expected.home, ...everyExpected(expected.parts)].map((part) => ({
        instance: part.instance,
        name: part.name,
        strength: part.strength,
        opensAt: part.opensAt,
        dueAt: part.dueAt,
      }))

/** What is sent to the platform for a plan, and what is kept beside it until the answer comes. */
export const madeOf = (
  planned: PlannedCourse,
  course: Course,
  publicUrl: string,
): { changes: Change[]; note: Note; bodies: ReadyBodies } | null => {
  const { plan, expected, heldTo, heldToAgain, undoes, bodies } = planned
  if (!isWorkedOut(plan)) return null
  const changes = withPublicAddresses(plan.changes, publicUrl)
  const partsTaken = heldTo?.partsTaken ?? null
  const before = beforeChanges(changes, course, bodies)
  return {
    changes,
    bodies: bodies.ready(
      [...bodiesOfEntries(plan.next.parts), ...bodiesBefore(before)],
      ownPrefix(course),
    ),
    note: {
      next: plan.next,
      before,
      expansion: expansionRecord(expected),
      counts: countsOf(plan),
      says: planSentence(plan),
      heldTo: heldTo && {
        ...heldTo,
        partsTaken: partsTaken && {
          only: partsTaken.only === null ? null : [...partsTaken.only],
          except: [...partsTaken.except],
        },
      },
      heldToAgain,
      undoes,
    },
  }
}

/** What a rollout comes to in one course, worked out of the platform's answer. */
interface Deployed extends Ready {
  base: Base
  undo: UndoRecord
  /** Every body that base and undo record name. */
  names: string[]
}

/** Carries out what was approved for one course of a rollout. */
export const runRolloutTask = async (job: Job): Promise<TaskOutcome> => {
  const { pool, connector, task, today, publicUrl } = job
  const rollout = orderOf(task.order)
  if (!rollout) return failed('the rollout has no order')
  const order = {
    order: rollout.order,
    decisions: { rule: rollout.rule, single: task.decisions },
    sourceCourseId: task.sourceCourseId,
  }
  const ready = async (
    changes: readonly Change[],
    note: Note,
    { ids, course }: Answered,
  ): Promise<Deployed> => {
    const revision = await baseRevision(pool, task.courseId)
    const before = await findBase(pool, task.courseId)
    const bodies = courseBodies()
    const base = baseAfter(note.next, ids, course, bodies)
    const undo = undoRecordOf(changes, note.before, course, ids, before, base, bodies)
    const named = [...bodiesOfBase(base), ...bodiesOfRecord(undo)]
    return {
      bodies: bodies.ready(named, ownPrefix(course)),
      baseRevision: revision,
      base,
      undo,
      names: [...new Set(named)],
    }
  }
  const keep = async (
    database: Database,
    key: string,
    note: Note,
    { base, undo, names, proof }: Proved<Deployed>,
  ): Promise<void> => {
    const lost = await unnamedBodies(database, task.courseId, names)
    if (lost.length > 0)
      throw new Error(`course ${task.courseId} would name ${lost.length} bodies that are not kept`)
    await storeBase(database, task.courseId, base)
    if (task.sourceCourseId !== null)
      await carryWaivers(database, task.sourceCourseId, task.courseId, today)
    const heldToBefore =
      note.heldTo || note.heldToAgain ? await heldToState(database, task.courseId) : null
    const heldToNow =
      note.heldToAgain ??
      (note.heldTo && heldToBefore ? heldToAfter(heldToBefore, note.heldTo) : null)
    if (heldToNow) await holdCourseTo(database, task.courseId, heldToNow)
    await recordDeployment(database, {
      courseId: task.courseId,
      runId: task.runId,
      mode: rollout.order.mode,
      templateId: note.heldTo?.templateId ?? null,
      version: note.heldTo?.version ?? null,
      by: task.by,
      engine: engineVersion,
      idempotencyKey: key,
      counts: note.counts,
      expansion: note.expansion,
      undo,
      heldToBefore,
      proof,
    })
    if (note.undoes !== null && rollout.order.mode === 'undo') {
      await markUndone(database, task.courseId, note.undoes, task.runId)
      await markInForceAgain(database, task.courseId, rollout.order.run)
    }
    await recordAudit(database, {
      who: task.by,
      what: rollout.order.mode === 'undo' ? 'taken back' : 'deployed',
      subject: `course ${task.courseId}`,
      to: { run: task.runId, ...note.counts },
    })
  }
  return runChangeSetTask<Note, Deployed>(job, {
    note: Note,
    ready,
    plan: async (stored, course) => {
      const planned = await planCourse(pool, order, stored, course, today)
      if ('unusable' in planned) return { outcome: failed(planned.unusable) }
      const { plan, summary } = planned
      if (!isWorkedOut(plan)) return { outcome: failed(plan.reason) }
      if (plan.state === 'nothing-to-do')
        return { nothing: 'nothing to do: everything is there already' }
      if (summary.digest !== task.planDigest && !(rollout.standing && plan.additive)) {
        await inTransaction(pool, (database) => keepPlan(database, task, summary, null))
        return {
          outcome: {
            state: 'held',
            message:
              'the course was changed after the plan was approved, and the plan would be another now; look at it and approve it again',
          },
        }
      }
      const halted = await putAssets(connector, planned.template?.assets ?? [])
      if (halted) return { outcome: halted }
      const made = madeOf(planned, course, publicUrl)
      return made ?? { nothing: summary.reason }
    },
    stillHolds: async (stored, inputs, revision) => {
      const now = await planInputs(pool, order, stored, today, revision)
      return (
        now?.digest === inputs && (await putAssets(connector, now.template?.assets ?? [])) === null
      )
    },
    keep,
    done: (note) => note.says,
  })
}
