import { parentPort } from 'node:worker_threads'
import type { Pool } from 'mysql2/promise'
import { findCourse } from '../repositories/courses.ts'
import { judgeAgain } from './judgeCourse.ts'

/** What a thread is asked, and what it answers. */
export interface JudgeQuestion {
  id: number
  courseId: number
  asOf: string
  today: string
}
export type JudgeAnswer =
  | { state: 'no-template' | 'known' | 'gone' }
  | { state: 'unusable'; reason: string }
  | { state: 'judged'; met: number; requirements: number }
  /** Something failed here; it may be asked again. */
  | { state: 'failed'; message: string }

/** Judges one course from what is stored of it, and keeps the answer. */
export const judgeStored = async (pool: Pool, { courseId, asOf, today }: Omit<JudgeQuestion, 'id'>): Promise<JudgeAnswer> => {
  const stored = await findCourse(pool, courseId, 'system', asOf)
  if (!stored) return { state: 'gone' }
  const judgement = await judgeAgain(pool, stored, asOf, today)
  if (judgement.state !== 'judged') return judgement
  const { met, requirements } = judgement.result.counts
  return { state: 'judged', met, requirements }
}

/** Answers questions from the main thread until it ends. Called in a worker thread. */
export const serveJudgements = (pool: Pool): void => {
  parentPort?.on('message', ({ id, ...question }: JudgeQuestion) => {
    void judgeStored(pool, question)
      .catch((cause: unknown): JudgeAnswer => ({ state: 'failed', message: cause instanceof Error ? cause.message : String(cause) }))
      .then((answer) => parentPort?.postMessage({ id, answer }))
  })
}
