import type { ExpectedPart, ExpectedQuestion } from '../expand/index.ts'
import { withLinks } from './links.ts'
import type { PlanContext } from './planContext.ts'

/** What a new question is called in a change set. */
export const questionClientId = (part: ExpectedPart, key: string): string =>
  `${part.instance}?${key}`

/** A question as it is written: its links lead to what stands in the course, or is made with it. */
export const writtenQuestion = (
  body: ExpectedQuestion['body'],
  { standing, created }: PlanContext,
): ExpectedQuestion['body'] => ({
  ...body,
  text: withLinks(body.text, (instance) => {
    const id = standing(instance)
    return id !== undefined ? `item:${id}` : created.has(instance) ? `ref:${instance}` : '#'
  }),
})
