import { z } from 'zod'
import {
  escapeHtml,
  readTypedQuestions,
  type CourseQuestion,
  type QuestionsWritten,
} from '@wickerframe/core'

const Named = z.object({ question: z.string() })
const Worded = Named.extend({ text: z.string().trim().min(1).max(5000) })
const Listed = z.object({ list: z.string().max(200_000) })

/**
 * What a form on the platform makes of the questions of an assessment: more of them, other words for one, one less.
 * @returns null where the form does not hold what it should
 */
export const questionsEdited = (
  questions: readonly CourseQuestion[],
  action: 'add-questions' | 'word-question' | 'remove-question',
  form: unknown,
): QuestionsWritten | null => {
  const stays = questions.map(({ id }) => ({ id }))
  if (action === 'add-questions') {
    const read = Listed.safeParse(form)
    const typed = read.success ? readTypedQuestions(read.data.list).questions : []
    return typed.length === 0
      ? null
      : {
          order: [...stays, ...typed.map(({ body }, i) => ({ clientId: `typed-${i}`, body }))],
          remove: [],
        }
  }
  const read = (action === 'word-question' ? Worded : Named).safeParse(form)
  const of = read.success ? questions.find(({ id }) => id === read.data.question) : undefined
  if (!of) return null
  if (action === 'remove-question')
    return { order: stays.filter(({ id }) => id !== of.id), remove: [of.id] }
  const { body } = of
  if (body.kind === 'other' || !read.success || !('text' in read.data)) return null
  const text = `<p>${escapeHtml(String(read.data.text))}</p>`
  return {
    order: stays.map((one) => (one.id === of.id ? { ...one, body: { ...body, text } } : one)),
    remove: [],
  }
}
