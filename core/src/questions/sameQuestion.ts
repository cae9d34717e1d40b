import type { CourseQuestion } from '../course/index.ts'
import { canonicalJson } from '../document/index.ts'
import { normalHtml } from '../page/index.ts'
import { rememberOf } from '../remember/index.ts'

type Body = CourseQuestion['body']

/** A question in a form in which what platforms rewrite of its HTML is alike. */
const formOf = rememberOf((body: Body): string => {
  const html = (text: string | undefined) => normalHtml(text ?? '').trim()
  return canonicalJson({
    ...body,
    text: html(body.text),
    ...('feedback' in body ? { feedback: html(body.feedback) } : {}),
    ...('model' in body ? { model: html(body.model) } : {}),
    ...('choices' in body
      ? {
          choices: body.choices.map(({ text, right, feedback }) => [
            html(text),
            right,
            html(feedback),
          ]),
        }
      : {}),
  })
})

/** Without where its links lead. */
const wordedForm = rememberOf((body: Body): string =>
  formOf({ ...body, text: body.text.replace(/\shref="[^"]*"/g, '') }),
)

/**
 * Whether a question of a course says what one of a template does: links lead to parts there, and to addresses here, so where they
 * lead is left out.
 */
export const saysTheSame = (one: Body, other: Body): boolean =>
  one.kind === other.kind && wordedForm(one) === wordedForm(other)

/** Whether two questions ask the same in the same way, with the same answers and points, however a platform writes their HTML. */
export const sameQuestion = (one: Body, other: Body): boolean =>
  one === other || (one.kind === other.kind && formOf(one) === formOf(other))
