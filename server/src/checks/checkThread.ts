import { parentPort } from 'node:worker_threads'
import type { Pool } from 'mysql2/promise'
import { findCourses } from '../courses/courses.ts'
import { checkCourses } from './checkStored.ts'

/** What a thread is asked: to check these courses, each question with a number of its own. */
export interface CheckQuestions {
  questions: readonly { id: number; courseId: number }[]
  asOf: string
  today: string
}
export type CheckAnswer =
  | { state: 'no-template' | 'known' | 'gone' }
  | { state: 'unusable'; reason: string }
  | { state: 'checked'; met: number; requirements: number }
  /** Something failed here; it may be asked again. */
  | { state: 'failed'; message: string }

const failedBy = (cause: unknown): CheckAnswer => ({
  state: 'failed',
  message: cause instanceof Error ? cause.message : String(cause),
})

/** Checks courses from what is stored of them, and keeps the answers. What fails for several together is tried for each alone. */
export const checkStored = async (
  pool: Pool,
  courseIds: readonly number[],
  asOf: string,
  today: string,
): Promise<Map<number, CheckAnswer>> => {
  try {
    const stored = await findCourses(pool, courseIds)
    const checked = await checkCourses(pool, stored, asOf, today)
    return new Map(
      courseIds.map((id): [number, CheckAnswer] => {
        const made = checked.get(id)
        if (!made) return [id, { state: 'gone' }]
        if (made.state !== 'checked') return [id, made]
        const { met, requirements } = made.result.counts
        return [id, { state: 'checked', met, requirements }]
      }),
    )
  } catch (cause) {
    const answers = new Map<number, CheckAnswer>()
    for (const id of courseIds)
      answers.set(
        id,
        courseIds.length === 1
          ? failedBy(cause)
          : ((await checkStored(pool, [id], asOf, today)).get(id) ?? failedBy(cause)),
      )
    return answers
  }
}

/** Answers questions from the main thread until it ends. Called in a worker thread. */
export const serveChecks = (pool: Pool): void => {
  parentPort?.on('message', ({ questions, asOf, today }: CheckQuestions) => {
    void checkStored(
      pool,
      [...new Set(questions.map((question) => question.courseId))],
      asOf,
      today,
    ).then((answers) => {
      for (const { id, courseId } of questions)
        parentPort?.postMessage({ id, answer: answers.get(courseId) })
    })
  })
}
