import type { CourseQuestion } from '../course/index.ts'
import { answersOf, escapeHtml } from '../template/index.ts'

/** Of the kinds whose answers are typed, these are plain text. */
const isTyped = (kind: string): boolean => kind === 'short-answer' || kind === 'pattern'

/** A question of a course with its answers and points, as HTML for people to read. */
export const questionHtml = (body: CourseQuestion['body']): string => {
  const answers = body.kind === 'other' ? [] : answersOf(body)
  const lines = answers.map(
    ({ text, right }) =>
      `<li>${isTyped(body.kind) ? escapeHtml(text) : text}${right ? ' (right)' : ''}</li>`,
  )
  const asked = /^\s*</.test(body.text) ? body.text : `<p>${body.text}</p>`
  return `${asked}${lines.length > 0 ? `<ul>${lines.join('')}</ul>` : ''}<p>${body.points} ${body.points === 1 ? 'point' : 'points'}</p>`
}
