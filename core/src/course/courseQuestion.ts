import { z } from 'zod'
import { JsonValue } from '../document/index.ts'
import { QuestionBody } from '../template/index.ts'

/** How many questions an assessment holds at most. */
export const mostQuestions = 1000

/** A question of a kind that has no fields here: what is asked is known, how it is answered is the platform's. */
export const OtherQuestion = z.strictObject({
  kind: z.literal('other'),
  text: z.string().max(500_000),
  points: z.number().min(0).default(0),
})

/** A question as it stands in a course. */
export const CourseQuestion = z.strictObject({
  id: z.string().min(1).max(100).describe('The platform’s own'),
  body: z.discriminatedUnion('kind', [...QuestionBody.options, OtherQuestion]),
  carried: z
    .record(z.string().max(200), JsonValue)
    .optional()
    .describe('What the platform holds of it that has no field here'),
})
export type CourseQuestion = z.output<typeof CourseQuestion>

/**
 * What is written of the questions of an item. Those named neither among the ones in order nor among the removed stay as they are,
 * after the others: what was not known of is not taken away.
 */
export const QuestionsWritten = z.strictObject({
  order: z
    .array(
      z.union([
        z.strictObject({ id: z.string().min(1).max(200) }).describe('As it stands'),
        z
          .strictObject({ id: z.string().min(1).max(200), body: QuestionBody })
          .describe('In another wording'),
        z
          .strictObject({ clientId: z.string().min(1).max(300), body: QuestionBody })
          .describe('A new one'),
      ]),
    )
    .max(mostQuestions),
  remove: z.array(z.string().min(1).max(200)).max(mostQuestions).default([]),
})
export type QuestionsWritten = z.output<typeof QuestionsWritten>
