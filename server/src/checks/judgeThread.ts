import { parentPort } from 'node:worker_threads'
import type { Pool } from 'mysql2/promise'
import { findCourses } from '../courses/courses.ts'
import { judgeCourses } from './judgeCourse.ts'

/** What a thread is asked: to judge these courses, each question with a number of its own. */
export interface JudgeQuestions {
  questions: readonly { id: number; courseId: number }[]
  asOf: string
  today: string
}
export type JudgeAnswer =
  | { state: 'no-template' | 'known' | 'gone' }
  | { state: 'unusable'; reason: string }
  | { state: 'judged'; met: number; requirements: number }
  /** Something failed here; it may be asked again. */
  | { state: 'failed'; message: string }

const failedBy = (cause: unknown): JudgeAnswer => ({
  state: 'failed',
  message: cause instanceof Error ? cause.message : String(cause),
})

/** Judges courses from what is stored of them, and keeps the answers. What fails for several together is tried for each alone. */
export const judgeStored = async (
  pool: Pool,
  courseIds: readonly number[],
  asOf: string,
  today: string,
): Promise<Map<number, JudgeAnswer>> => {
  try {
    const stored = await findCourses(pool, courseIds)
    const judged = await judgeCourses(pool, stored, asOf, today)
    return new Map(
      courseIds.map((id): [number, JudgeAnswer] => {
        const judgement = judged.get(id)
        if (!judgement) return [id, { state: 'gone' }]
        if (judgement.state !== 'judged') return [id, judgement]
        const { met, requirements } = judgement.result.counts
        return [id, { state: 'judged', met, requirements }]
      }),
    )
  } catch (cause) {
    const answers = new Map<number, JudgeAnswer>()
    for (const id of courseIds)
      answers.set(
        id,
        courseIds.length === 1
          ? failedBy(cause)
          : ((await judgeStored(pool, [id], asOf, today)).get(id) ?? failedBy(cause)),
      )
    return answers
  }
}

/** Answers questions from the main thread until it ends. Called in a worker thread. */
export const serveJudgements = (pool: Pool): void => {
  parentPort?.on('message', ({ questions, asOf, today }: JudgeQuestions) => {
    void judgeStored(
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
