import { letIn } from '../allow/index.ts'
import type { Question, QuestionBody, Writing } from '../template/index.ts'
import type { ExpectedQuestion } from './expected.ts'
import { fillText } from './fillHtml.ts'
import type { FieldValues } from '../naming/index.ts'

/** A question as deployment writes it: naming fields filled, and nothing in it that runs or loads by itself. */
export const questionInCourse = (
  { key, left, body }: Question,
  writing: Pick<Writing, 'html' | 'line'>,
  values: FieldValues,
): ExpectedQuestion => {
  const shared = {
    text: letIn(writing.html(body.text)).html,
    ...(body.feedback === undefined ? {} : { feedback: writing.line(body.feedback) }),
  }
  const inCourse = (): QuestionBody => {
    switch (body.kind) {
      case 'one-answer':
      case 'several-answers':
        return {
          ...body,
          ...shared,
          choices: body.choices.map(({ text, right, feedback }) => ({
            text: writing.line(text),
            right,
            ...(feedback === undefined ? {} : { feedback: writing.line(feedback) }),
          })),
        }
      case 'short-answer':
      case 'pattern':
        return {
          ...body,
          ...shared,
          answers: body.answers.map((text) => fillText(text, values, null)),
        }
      case 'essay':
        return {
          ...body,
          ...shared,
          ...(body.model === undefined ? {} : { model: writing.line(body.model) }),
        }
      case 'true-or-false':
        return { ...body, ...shared }
    }
  }
  return { key, left: left ?? null, body: inCourse() }
}
