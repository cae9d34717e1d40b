import type { ExpectedCourse, ExpectedPart } from '../expand/index.ts'
import { fileFilledIn } from './fileFilledIn.ts'
import { questionsFilledIn } from './questionsFilledIn.ts'

/** An expected course whose assessments ask, and whose files hold, what a good instructor puts there; its pages stay as they are. */
export const withItemsFilledIn = (expected: ExpectedCourse): ExpectedCourse => {
  const filled = (part: ExpectedPart): ExpectedPart => ({
    ...part,
    questions: questionsFilledIn(part),
    file: fileFilledIn(part),
    items: part.items.map(filled),
  })
  return { ...expected, parts: expected.parts.map(filled) }
}
