import { randomUUID } from 'node:crypto'
import type { Pool } from 'mysql2/promise'
import {
  notReadAgain,
  proofOf,
  proofWords,
  readDocument,
  type Change,
  type Course,
  type Proof,
} from '@wickerframe/core'
import { ChangeSet, type ChangeSetAnswer } from '@wickerframe/contract'
import { inTransaction, type Database } from '@wickerframe/storage'
import { z } from 'zod'
import type { Connector } from '../connector/client.ts'
import { unanswered } from '../connector/unanswered.ts'
import { withPublicAddresses } from '../library/publicAddresses.ts'
import { heldThere } from '../files/heldThere.ts'
import { filesSent, speakOfFiles } from '../files/sendFiles.ts'
import { sha256 } from '../digest.ts'
import { inTransactionNaming, nameBodies, type ReadyBodies } from '../snapshots/courseBodies.ts'
import { findCourse, type StoredCourse } from '../courses/courses.ts'
import { hasUnresolvedKey } from './deployments.ts'
import { storeRead } from '../history/courseEdits.ts'
import { baseRevision, lockBaseRevision, raiseBaseRevision } from './bases.ts'
import type { Job } from '../queue/job.ts'
import {
  finishTask,
  forgetKey,
  markPreparedSent,
  markSent,
  type ClaimedTask,
} from '../queue/tasks.ts'
import {
  findSnapshot,
  prepareSnapshot,
  storeSnapshot,
  type PreparedSnapshot,
} from '../snapshots/snapshots.ts'
import { failed, fateUnknown, later, LostLease, waits, type TaskOutcome } from '../queue/outcome.ts'

/** What is written down before it is sent: the change set, and what the task needs to know of it when the answer comes. */
const Payload = z.strictObject({ platformId: z.string(), set: ChangeSet, note: z.unknown() })

/**
 * What a kind of task adds to the sending of change sets. `note` is kept beside the set and comes back with the answer; `R` is
 * what is made ready of the answer before the transaction that keeps it.
 */
export interface ChangeSetWork<N, R extends Ready = Ready> {
  /** Whether what it writes is somebody’s own, and counts as an edit of theirs. */
  isPeoples?: true
  note: z.ZodType<N>
  /** The changes for the course as it stands now, with the bodies that the note names; or how the task ends without any. */
  plan: (
    stored: StoredCourse,
    course: Course,
  ) => Promise<
    | { changes: Change[]; note: N; bodies?: ReadyBodies }
    | { outcome: TaskOutcome }
    | { nothing: string }
  >
  /** Whether what was made ready when the course was planned is what would be planned now, the platform's revision apart. */
  stillHolds?: (stored: StoredCourse, inputs: string, baseRevision: number) => Promise<boolean>
  /** What is worked out of the answer before the transaction that ends the task begins; its bodies are kept and named. */
  ready: (changes: readonly Change[], note: N, answer: Answered) => Promise<R>
  /** Keeps what came of it, in the transaction that ends the task. */
  keep: (
    database: Database,
    key: string,
    note: N,
    ready: Proved<R>,
    changes: readonly Change[],
  ) => Promise<void>
  /** What the task says when it is done. */
  done: (note: N) => string
}

/** What was worked out of an answer: the bodies it names, and the revision of the base it was worked out on, if it was on one. */
export interface Ready {
  bodies: ReadyBodies
  baseRevision: number | null
}
export const nothingReady: Ready = { bodies: { named: [], html: new Map() }, baseRevision: null }
/** That, with the course read again and held against the plan; null where nothing was sent. */
export type Proved<R extends Ready> = R & { proof: Proof | null }

/** What the platform answered; for a plan without changes, the course as it was read. */
export type Answered = Pick<ChangeSetAnswer, 'ids' | 'course' | 'revision'>

const plannedAgain = 3
/** Refusals that a new plan may get past: the course was edited, a key was voided, students handed in, something is gone. */
const planAgain = new Set([
  'stale-revision',
  'voided',
  'student-work',
  'gone',
  'not-empty',
  'unknown-reference',
  'no-content',
])

/**
 * Sends a change set to one course, exactly once. A set whose fate is not known is always asked for again under its own
 * key, before anything else; only then is a new plan made.
 */
export const runChangeSetTask = async <N, R extends Ready>(
  job: Job,
  work: ChangeSetWork<N, R>,
): Promise<TaskOutcome> => {
  const { pool, connector, task, lease, today } = job
  let made: Made<N> | null = await sendPrepared(job, work)
  for (let round = 0; round < plannedAgain; round++) {
    // Whoever holds the task now asks under the same key; nothing is begun here any more.
    if (lease.aborted) return { state: 'lost-lease' }
    if (!task.sent) {
      const prepared = await prepare(job, work)
      if ('outcome' in prepared) return prepared.outcome
      const { bodies } = prepared
      const marked = await inTransactionNaming(
        pool,
        new Map([...bodies.html, ...prepared.snapshot.bodies.html]),
        async (database): Promise<'marked' | 'lost-lease' | 'outrun'> => {
          // Under the course's lock: what another run deployed since is in no plan, and one at a time sends.
          if (
            (await lockBaseRevision(database, task.courseId)) !== prepared.baseRevision ||
            (await hasUnresolvedKey(database, task.courseId, task.id))
          )
            return 'outrun'
          await nameBodies(database, task.courseId, bodies.named)
          await storeRead(database, task.courseId, prepared.snapshot, today)
          return (await markSent(database, task, prepared.sent)) ? 'marked' : 'lost-lease'
        },
      )
      if (marked === 'lost-lease') return { state: 'lost-lease' }
      if (marked === 'outrun') continue
      task.sent = prepared.sent
      made = prepared.made
    }
    const { sent } = task
    made ??= readSent(sent.payload, work)
    if (!made) return failed('what was sent is stored in a form that cannot be read')
    const { platformId, set } = made
    const answer = await connector.apply(platformId, sent.key, set)
    switch (answer.state) {
      case 'answered':
        return settle(job, sent.key, made, answer.value, work)
      case 'later':
        return waits(answer.detail, answer.afterSeconds)
      case 'unknown':
        return fateUnknown(`${answer.detail}; asking again under the same key`)
      case 'refused':
        if (answer.code === 'no-content') heldThere.forget()
        if (!planAgain.has(answer.code)) return failed(`the platform refused: ${answer.detail}`)
        if (!(await inTransaction(pool, (database) => forgetKey(database, task))))
          return { state: 'lost-lease' }
        task.sent = null
        made = null
    }
  }
  return later('the course keeps being edited while it is planned', 1)
}

/** A change set as it is sent, with what is kept beside it. */
interface Made<N> {
  platformId: string
  set: ChangeSet
  note: N
}

/**
 * Takes what was made ready when the course was planned, if it still holds: nothing is read or planned again, and a course
 * that was edited since is refused by its revision. Marks it as sent.
 */
const sendPrepared = async <N, R extends Ready>(
  { pool, task, today }: Job,
  work: ChangeSetWork<N, R>,
): Promise<Made<N> | null> => {
  const { prepared } = task
  if (!prepared || task.sent || !work.stillHolds) return null
  const made = JSON.parse(prepared.payload) as Made<N>
  // Documents are filled, and files put there, when they are sent.
  if (speakOfFiles(made.set.changes)) return null
  const revision = await baseRevision(pool, task.courseId)
  const stored = await findCourse(pool, task.courseId, 'system', today)
  if (!stored || !(await work.stillHolds(stored, prepared.inputs, revision))) return null
  const sent = {
    key: randomUUID(),
    payloadDigest: sha256(prepared.payload),
    payload: prepared.payload,
  }
  const marked = await inTransaction(pool, async (database) => {
    if (
      (await lockBaseRevision(database, task.courseId)) !== revision ||
      (await hasUnresolvedKey(database, task.courseId, task.id))
    )
      return false
    return markPreparedSent(database, task, sent.key, sent.payloadDigest)
  })
  if (!marked) return null
  task.sent = sent
  return made
}

/** What another worker, or this one before it was killed, had written down. */
const readSent = <N, R extends Ready>(text: string, work: ChangeSetWork<N, R>): Made<N> | null => {
  const payload = readDocument(Payload, JSON.parse(text))
  const note = payload.ok ? readDocument(work.note, payload.value.note) : payload
  return payload.ok && note.ok
    ? { platformId: payload.value.platformId, set: payload.value.set, note: note.value as N }
    : null
}

const prepare = async <N, R extends Ready>(
  job: Job,
  work: ChangeSetWork<N, R>,
): Promise<
  | {
      sent: NonNullable<ClaimedTask['sent']>
      made: Made<N>
      bodies: ReadyBodies
      /** The course as it was planned for, which what comes of it is held against. */
      snapshot: PreparedSnapshot
      baseRevision: number
    }
  | { outcome: TaskOutcome }
> => {
  const { pool, connector, task, today, publicUrl } = job
  if (await hasUnresolvedKey(pool, task.courseId, task.id))
    return { outcome: waits('another run is at work in this course', 2) }
  // Before anything is read: whoever deploys meanwhile raises it.
  const revision = await baseRevision(pool, task.courseId)
  const stored = await findCourse(pool, task.courseId, 'system', today)
  if (!stored) return { outcome: failed('the course is gone') }
  const { platformId } = stored.summary
  const read = await connector.snapshot(platformId)
  if (read.state === 'refused')
    return {
      outcome: failed(
        read.status === 404
          ? `the platform has no course ${platformId}`
          : `the platform refused: ${read.detail}`,
      ),
    }
  if (read.state !== 'answered') return { outcome: unanswered(read) }
  const planned = await work.plan(stored, read.value)
  if ('outcome' in planned) return planned
  if ('nothing' in planned) {
    const snapshot = prepareSnapshot(read.value)
    await inTransactionNaming(pool, snapshot.bodies.html, async (database) => {
      await storeRead(database, task.courseId, snapshot, today)
      if (!(await finishTask(database, task, 'done', planned.nothing))) throw new LostLease()
    })
    return { outcome: { state: 'done' } }
  }
  if (planned.changes.length === 0)
    return {
      outcome: await settle(
        job,
        randomUUID(),
        {
          platformId,
          set: { expectedRevision: read.value.revision, changes: [] },
          note: planned.note,
        },
        { ids: {}, course: read.value, revision: read.value.revision },
        work,
        revision,
      ),
    }
  const addressed = withPublicAddresses(planned.changes, publicUrl)
  const sending = await filesSent(pool, connector, addressed)
  if ('outcome' in sending) return sending
  const payload = {
    platformId,
    set: { expectedRevision: read.value.revision, changes: sending.changes },
    note: planned.note,
  }
  const text = JSON.stringify(payload)
  return {
    sent: { key: randomUUID(), payloadDigest: sha256(text), payload: text },
    made: payload,
    bodies: planned.bodies ?? nothingReady.bodies,
    snapshot: prepareSnapshot(read.value),
    baseRevision: revision,
  }
}

/**
 * Reads a course again after a change set and holds it against what the set was to make of what stood before.
 * @returns the course as it was read last, and the proof; null where nothing was sent
 */
const proved = async <N>(
  pool: Pool,
  connector: Connector,
  courseId: number,
  { platformId, set }: Made<N>,
  answer: Answered,
): Promise<{ course: Course; proof: Proof | null }> => {
  if (set.changes.length === 0) return { course: answer.course, proof: null }
  const again = await connector.snapshot(platformId)
  if (again.state !== 'answered') return { course: answer.course, proof: notReadAgain }
  const before = (await findSnapshot(pool, courseId))?.course
  return {
    course: again.value,
    proof:
      before?.revision === set.expectedRevision
        ? proofOf(before, set.changes, answer.ids, again.value, answer.revision)
        : notReadAgain,
  }
}

/**
 * Keeps what the platform did, all in one transaction, with the end of the task.
 * @param planned for what was not sent: the base revision it was planned on
 */
const settle = async <N, R extends Ready>(
  { pool, connector, task, today }: Job,
  key: string,
  made: Made<N>,
  answer: Answered,
  work: ChangeSetWork<N, R>,
  planned?: number,
): Promise<TaskOutcome> => {
  const {
    note,
    set: { changes },
  } = made
  const { course, proof } = await proved(pool, connector, task.courseId, made, answer)
  const snapshot = prepareSnapshot(course)
  const ready = await work.ready(changes, note, answer)
  const html = new Map([...snapshot.bodies.html, ...ready.bodies.html])
  try {
    await inTransactionNaming(pool, html, async (database) => {
      const revision = await lockBaseRevision(database, task.courseId)
      // Worked out on what has changed since: the task is taken up again, and its key asked for.
      if (planned !== undefined && revision !== planned) throw new LostLease()
      if (ready.baseRevision !== null && ready.baseRevision !== revision) throw new LostLease()
      const says = [work.done(note), ...(proof ? [proofWords(proof)] : [])].join('; ')
      if (!(await finishTask(database, task, 'done', says))) throw new LostLease()
      await nameBodies(database, task.courseId, ready.bodies.named)
      await work.keep(database, key, note, { ...ready, proof }, changes)
      await raiseBaseRevision(database, task.courseId)
      // Where nothing of ours was sent, whatever is other than before is what people did.
      if (changes.length === 0 || work.isPeoples)
        await storeRead(database, task.courseId, snapshot, today)
      else await storeSnapshot(database, task.courseId, snapshot)
    })
  } catch (cause) {
    if (cause instanceof LostLease) return { state: 'lost-lease' }
    throw cause
  }
  return { state: 'done' }
}
