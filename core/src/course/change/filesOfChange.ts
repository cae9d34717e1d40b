import {
  filesLedTo,
  sentHandout,
  shownOf,
  withFilesLedTo,
  type ShownFile,
  type WrittenFile,
} from '../../files/index.ts'
import type { Change } from './change.ts'
import type { ItemFields } from './fields.ts'
import type { z } from 'zod'

type Fields = Partial<z.output<typeof ItemFields>>
const fieldsOf = (change: Change): Fields | null =>
  change.change === 'create-item' || change.change === 'set-item' ? change.fields : null

const textsOf = ({ html, questions }: Fields): string[] => [
  ...(html === undefined ? [] : [html]),
  ...(questions?.order ?? []).flatMap((question) =>
    'body' in question ? [question.body.text] : [],
  ),
]

/** Every file that a change puts into a course: that an item hands out, or a page or a question leads to. */
export const filesOfChange = (change: Change): WrittenFile[] => {
  const fields = fieldsOf(change)
  return fields
    ? [...(fields.file ? [fields.file] : []), ...textsOf(fields).flatMap(filesLedTo)]
    : []
}

/** A change with the HTML in it written anew. */
export const withHtmlOfChange = (change: Change, to: (html: string) => string): Change => {
  const fields = fieldsOf(change)
  if (!fields) return change
  const { html, questions } = fields
  if (html === undefined && questions === undefined) return change
  return {
    ...change,
    fields: {
      ...fields,
      ...(html === undefined ? {} : { html: to(html) }),
      ...(questions
        ? {
            questions: {
              ...questions,
              order: questions.order.map((question) =>
                'body' in question
                  ? { ...question, body: { ...question.body, text: to(question.body.text) } }
                  : question,
              ),
            },
          }
        : {}),
    },
  } as Change
}

/** A change that speaks of its files as they were sent. @param sent is given each as it was planned */
export const withFilesSent = (change: Change, sent: (file: WrittenFile) => ShownFile): Change => {
  const led = withHtmlOfChange(change, (html) =>
    withFilesLedTo(html, (file) => sentHandout(shownOf(sent(file)))),
  )
  const fields = fieldsOf(led)
  return fields?.file
    ? ({ ...led, fields: { ...fields, file: shownOf(sent(fields.file)) } } as Change)
    : led
}
