import { z } from 'zod'
import { BaseEntry, BlockBase, FieldBase } from './base.ts'

/** What is known of a block after a plan; `fresh`: the page that the platform gives back is its page. */
export const NextBlock = BlockBase.extend({ fresh: z.boolean() })
export type NextBlock = z.output<typeof NextBlock>

/** What the base says of a part once the plan was carried out. Fields, blocks and page marked fresh are read from what the platform gives back. */
export const NextEntry = BaseEntry.extend({
  platformId: z.string().nullable().describe('null: the plan creates it'),
  freshFields: z.array(z.string()),
  blocks: z.array(NextBlock),
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
