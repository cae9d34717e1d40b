import type { TaskState } from '@wickerframe/contract'
import { startPrivateSchema, type PrivateSchema } from '../testing/privateSchema.testing.ts'

/** What was sent for a task, as a worker writes it down. */
export const sent = { key: 'key', payloadDigest: 'd'.repeat(64), payload: '[]' }

export interface PrivateQueue {
  schema: PrivateSchema
  courses: readonly number[]
  addRun: (state: string) => Promise<number>
  /** A task in a state, held by epoch 7 with a lease that has run out. */
  addTask: (run: number, state: TaskState, course?: number) => Promise<number>
  stateOf: (task: number) => Promise<TaskState | undefined>
  /** Takes all runs and tasks away. */
  empty: () => Promise<void>
}

/** A schema of its own with thirty courses, for tests of the queue. */
export const privateQueue = async (): Promise<PrivateQueue> => {
  const schema = await startPrivateSchema()
  const courses = await schema.addCourses(30)
  return {
    schema,
    courses,
    addRun: async (state) => {
      await schema.pool.query(
        `INSERT INTO runs (kind, state, title, created_by, created_at)
         VALUES ('rollout', ?, 'A rollout', 'designer@kestrelsound.example', NOW(3))`,
        [state],
      )
      const [run] = await schema.rows<{ id: number }>(`SELECT MAX(id) AS id
        FROM runs`)
      return run?.id ?? 0
    },
    addTask: async (run, state, course = courses[0]) => {
      const isSent = state === 'sent'
      await schema.pool.query(
        `INSERT INTO tasks (
           run_id, course_id, state, next_at, lease_epoch, lease_until, plan_summary,
             idempotency_key, payload, payload_digest
         )
         VALUES (?, ?, ?, '2000-01-01', 7, '2000-01-01', '{"state":"ready"}', ?, ?, ?)`,
        [
          run,
          course,
          state,
          isSent ? `${sent.key}-${course}` : null,
          isSent ? Buffer.from([0x03, 0x00]) : null,
          isSent ? sent.payloadDigest : null,
        ],
      )
      const [task] = await schema.rows<{ id: number }>(`SELECT MAX(id) AS id
        FROM tasks`)
      return task?.id ?? 0
    },
    stateOf: async (task) =>
      (
        await schema.rows<{ state: TaskState }>(
          `SELECT state
           FROM tasks
           WHERE id = ?`,
          [task],
        )
      )[0]?.state,
    empty: async () => {
      await schema.pool.query('DELETE FROM tasks')
      await schema.pool.query('DELETE FROM runs')
    },
  }
}
