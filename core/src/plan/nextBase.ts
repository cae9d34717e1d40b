import { z } from 'zod'
import { BaseEntry, BlockBase, FieldBase, QuestionBase } from './base.ts'

/** What is known of a block after a plan; `fresh`: the page that the platform gives back is its page. */
export const NextBlock = BlockBase.extend({ fresh: z.boolean() })
export type NextBlock = z.output<typeof NextBlock>

/** What is known of a question after a plan; `fresh`: its id, where it is new, and its echo are read from what the platform gives back. */
export const NextQuestion = QuestionBase.extend({
  clientId: z.string().nullable().describe('null: it has its id already'),
  fresh: z.boolean(),
})
export type NextQuestion = z.output<typeof NextQuestion>

/** What the base says of a part once the plan was carried out. Fields, blocks and page marked fresh are read from what the platform gives back. */
export const NextEntry = BaseEntry.extend({
  platformId: z.string().nullable().describe('null: the plan creates it'),
  freshFields: z.array(z.string()),
  blocks: z.array(NextBlock),
  questions: z.array(NextQuestion).optional(),
  freshPage: z.boolean(),
})
export type NextEntry = z.output<typeof NextEntry>

/** The base that a plan leads to, short of what only the platform's answer can tell. */
export const NextBase = z.strictObject({
  course: z.record(z.string(), FieldBase),
  freshCourseFields: z.array(z.string()),
  parts: z.array(NextEntry),
})
export type NextBase = z.output<typeof NextBase>
