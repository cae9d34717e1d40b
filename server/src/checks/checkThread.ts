import { parentPort } from 'node:worker_threads'
import type { Pool } from 'mysql2/promise'
import { findCourses } from '../courses/courses.ts'
import { foreseeStored } from '../impact/foreseeStored.ts'
import { checkCourses } from './checkStored.ts'

/** What a thread is asked: to check these courses, or to hold a draft against them; each question with a number of its own. */
export interface CheckQuestions {
  questions: readonly { id: number; courseId: number }[]
  /** The run whose draft is held against them; null: they are checked as they are held. */
  impact: number | null
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

/** Works on courses together. What fails for several is tried for each alone. */
const togetherOrAlone = async (
  courseIds: readonly number[],
  work: (courseIds: readonly number[]) => Promise<Map<number, CheckAnswer>>,
): Promise<Map<number, CheckAnswer>> => {
  try {
    return await work(courseIds)
  } catch (cause) {
    const answers = new Map<number, CheckAnswer>()
    for (const id of courseIds)
      answers.set(
        id,
        courseIds.length === 1
          ? failedBy(cause)
          : ((await togetherOrAlone([id], work)).get(id) ?? failedBy(cause)),
      )
    return answers
  }
}

/** Checks courses from what is stored of them, and keeps the answers. */
export const checkStored = (
  pool: Pool,
  courseIds: readonly number[],
  asOf: string,
  today: string,
): Promise<Map<number, CheckAnswer>> =>
  togetherOrAlone(courseIds, async (ids) => {
    const stored = await findCourses(pool, ids)
    const checked = await checkCourses(pool, stored, asOf, today)
    return new Map(
      ids.map((id): [number, CheckAnswer] => {
        const made = checked.get(id)
        if (!made) return [id, { state: 'gone' }]
        if (made.state !== 'checked') return [id, made]
        const { met, requirements } = made.result.counts
        return [id, { state: 'checked', met, requirements }]
      }),
    )
  })

/** Holds the draft of a run against courses, from what is stored of them, and keeps what it would change. */
export const foreseeCourses = (
  pool: Pool,
  courseIds: readonly number[],
  run: number,
  today: string,
): Promise<Map<number, CheckAnswer>> =>
  togetherOrAlone(courseIds, async (ids) => {
    const now = await checkStored(pool, ids, today, today)
    await foreseeStored(pool, ids, run, today)
    return now
  })

/** Answers questions from the main thread until it ends. Called in a worker thread. */
export const serveChecks = (pool: Pool): void => {
  parentPort?.on('message', ({ questions, impact, asOf, today }: CheckQuestions) => {
    const ids = [...new Set(questions.map((question) => question.courseId))]
    void (
      impact === null
        ? checkStored(pool, ids, asOf, today)
        : foreseeCourses(pool, ids, impact, today)
    ).then((answers) => {
      for (const { id, courseId } of questions)
        parentPort?.postMessage({ id, answer: answers.get(courseId) })
    })
  })
}
