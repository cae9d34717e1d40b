import { z } from 'zod'
import { CourseQuestion, RecordedAs } from '../course/index.ts'
import { ItemKind, QuestionBody } from '../template/index.ts'

type Json = z.output<ReturnType<typeof z.json>>
/** Any value: what is read was JSON before, and is not walked through once more. */
const Value = z.unknown().refine((value) => value !== undefined) as unknown as z.ZodType<Json>

/** What was deployed of one field: the form we sent, and what the platform made of it. */
export const FieldBase = z.strictObject({ sent: Value, echo: Value })
export type FieldBase = z.output<typeof FieldBase>

const BodyId = z.string().min(1).max(64)

/** What was deployed of one block: its HTML as we sent it, and the page in which the platform gave it back, by their ids. */
export const BlockBase = z.strictObject({
  key: z.string().max(80),
  sent: BodyId,
  page: BodyId.nullable().describe('null: it was never in a page we saw'),
})
export type BlockBase = z.output<typeof BlockBase>

/** What was deployed of one question: as we sent it, and what the platform made of it. */
export const QuestionBase = z.strictObject({
  key: z.string().max(80),
  id: z.string().max(100).describe('The platform’s own'),
  sent: QuestionBody,
  echo: CourseQuestion.shape.body,
})
export type QuestionBase = z.output<typeof QuestionBase>

/** What an earlier deployment made of one part instance: the base of the next merge. */
export const BaseEntry = z.strictObject({
  instance: z.string().max(200),
  platformId: z.string().max(100),
  template: z.string().max(80).describe('Key of the template it was deployed from'),
  ...RecordedAs.shape,
  kind: z.union([ItemKind, z.literal('module')]),
  parent: z
    .string()
    .max(200)
    .nullable()
    .describe('Instance of the module it was put into; null: into none'),
  format: z.string().max(500).nullable().describe('Naming format its name was written by'),
  fields: z.record(z.string(), FieldBase),
  blocks: z.array(BlockBase),
  questions: z.array(QuestionBase).optional().describe('Of an assessment, where it has any'),
  page: BodyId.nullable().describe(
    'The page as the platform gave it back, while all of it is ours; null once it holds something else',
  ),
})
export type BaseEntry = z.output<typeof BaseEntry>

/** What was last deployed to a course, part by part in the order of its template: the base of the next merge. */
export const Base = z.strictObject({
  schema: z.literal('wickerframe.base/1'),
  course: z.record(z.string(), FieldBase).describe('Fields of the course itself'),
  parts: z.array(BaseEntry).max(20_000),
  bodies: z
    .record(BodyId, z.string())
    .default({})
    .describe('The HTML behind the ids, as far as it travels with the document'),
})
export type Base = z.output<typeof Base>

export const emptyBase = (): Base => ({
  schema: 'wickerframe.base/1',
  course: {},
  parts: [],
  bodies: {},
})

/** As much of a base as tells what is what: a check needs no more of it, and reads no more. */
export const RecordedParts = z.object({
  parts: z.array(z.object({ platformId: z.string().max(100), ...RecordedAs.shape })).max(20_000),
})

/** Recorded identity of a course's base, by the platform's ids. */
export const identityOf = ({ parts }: z.output<typeof RecordedParts>): Map<string, RecordedAs> =>
  new Map(
    parts.map(({ platformId, part, repetition, number }) => [
      platformId,
      { part, repetition, number },
    ]),
  )
