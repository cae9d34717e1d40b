import { later, waits, type TaskOutcome } from '../queue/outcome.ts'
import type { Answer } from './client.ts'

/**
 * What a task comes to that asked the platform for something it can ask for again. That the platform is away, or asks to wait,
 * is no attempt of the task, however long it takes; that it fails or goes silent may be for what was asked.
 */
export const unanswered = (
  answer: Extract<Answer<never>, { state: 'later' | 'unknown' }>,
): TaskOutcome =>
  answer.state === 'later' ? waits(answer.detail, answer.afterSeconds) : later(answer.detail)
