import { z } from 'zod'
import { JsonValue, Line } from '../../document/index.ts'
import { WrittenFile } from '../../files/index.ts'
import { QuestionsWritten } from '../courseQuestion.ts'
import { Rubric, WorkSettings } from '../../template/index.ts'

/** The platform's own id, or `ref:CLIENT_ID` for what an earlier change of the same set made. */
export const Id = z.string().min(1).max(200)
export const Name = Line(2000)
export const Instant = z.iso.datetime({ offset: true }).nullable()
export const At = z
  .number()
  .int()
  .min(0)
  .max(5000)
  .nullable()
  .describe(
    'Place from 0 among everything that stands in the same module; at the top, among the modules or among the items outside them; null: last',
  )
export const ClientId = z
  .string()
  .min(1)
  .max(200)
  .describe(
    'Given by the client; later changes and links of the same set speak of it as ref:CLIENT_ID',
  )

const carried = z
  .record(z.string().max(200), JsonValue)
  .optional()
  .describe('What a snapshot carried of it, given back as it came')

export const ItemFields = z.strictObject({
  name: Name.optional(),
  published: z.boolean().optional(),
  staffOnly: z.boolean().optional(),
  opensAt: Instant.optional(),
  dueAt: Instant.optional(),
  closesAt: Instant.optional(),
  points: z.number().min(0).nullable().optional(),
  category: z.string().max(200).nullable().optional(),
  html: z.string().max(1_000_000).optional(),
  target: z.string().max(2000).nullable().optional(),
  work: WorkSettings.nullable().optional().describe('null: none'),
  rubric: Rubric.nullable().optional().describe('null: none'),
  questions: QuestionsWritten.optional(),
  file: WrittenFile.nullable().optional().describe('Of the kind file; null: none'),
  carried,
})
export const ModuleFields = z.strictObject({
  name: Name.optional(),
  published: z.boolean().optional(),
  staffOnly: z.boolean().optional(),
  opensAt: Instant.optional(),
  carried,
})
