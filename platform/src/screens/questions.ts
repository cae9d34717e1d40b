import {
  answersOf,
  escapeHtml,
  questionKindWords,
  type Course,
  type CourseItem,
  type CourseQuestion,
} from '@wickerframe/core'
import { button, escape, safeHtml } from './layout.ts'

const answers = ({ body }: CourseQuestion): string => {
  if (body.kind === 'other') return '<p class="words">It is answered in a way of its own.</p>'
  const lines = answersOf(body)
  if (lines.length === 0) return '<p class="words">It is answered in writing.</p>'
  const typed = body.kind === 'short-answer' || body.kind === 'pattern'
  return `<ul>${lines.map(({ text, right }) => `<li>${safeHtml(typed ? escapeHtml(text) : text)}${right ? ' <b>right</b>' : ''}</li>`).join('')}</ul>`
}

const one = (base: string, question: CourseQuestion, number: number): string =>
  `<li>${safeHtml(question.body.text)}${answers(question)}
  <div class="words">${escape(questionKindWords(question.body.kind))}, ${question.body.points} ${question.body.points === 1 ? 'point' : 'points'}. ${button(`${base}/remove-question`, 'take it out', { question: question.id })}</div>
  ${question.body.kind === 'other' ? '' : `<form class="block" method="post" action="${base}/word-question"><input type="hidden" name="question" value="${escape(question.id)}"><label>Ask instead <input name="text" size="50" aria-label="Ask instead of question ${number}"></label> <button>ask it so</button></form>`}</li>`

/** What an assessment asks, as whoever teaches the course sees it, and where they write more. */
export const questionsOf = (course: Course, item: CourseItem): string => {
  if (item.kind !== 'assessment') return ''
  const base = escape(`/courses/${course.id}/items/${item.id}`)
  const questions = item.questions ?? []
  return `<h2>Questions</h2>
  ${questions.length === 0 ? '<p class="words">It asks nothing yet.</p>' : `<ol>${questions.map((question, i) => one(base, question, i + 1)).join('')}</ol>`}
  <form class="block" method="post" action="${base}/add-questions"><label>More questions: a number, what is asked, and below it the answers, a star at the right ones <textarea name="list" rows="6" required></textarea></label> <button>add them</button></form>`
}
