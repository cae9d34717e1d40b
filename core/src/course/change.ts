import { Line } from '../document/index.ts'
import { z } from 'zod'
import { CourseSettings, GradeScheme, ItemKind, Rubric, WorkSettings } from '../template/index.ts'

const Id = z.string().min(1).max(200)
const Name = Line(2000)
const Instant = z.iso.datetime({ offset: true }).nullable()
const At = z
  .number()
  .int()
  .min(0)
  .max(5000)
  .nullable()
  .describe('Place among its siblings, from 0; null: last')
const ClientId = z
  .string()
  .min(1)
  .max(200)
  .describe(
    'Given by the client; later changes and links of the same set speak of it as ref:CLIENT_ID',
  )

const ItemFields = z.strictObject({
  name: Name.optional(),
  published: z.boolean().optional(),
  opensAt: Instant.optional(),
  dueAt: Instant.optional(),
  closesAt: Instant.optional(),
  points: z.number().min(0).nullable().optional(),
  category: z.string().max(200).nullable().optional(),
  html: z.string().max(1_000_000).optional(),
  target: z.string().max(2000).nullable().optional(),
  work: WorkSettings.nullable().optional().describe('null: none'),
  rubric: Rubric.nullable().optional().describe('null: none'),
})
const ModuleFields = z.strictObject({
  name: Name.optional(),
  published: z.boolean().optional(),
  opensAt: Instant.optional(),
})

/**
 * One change of a course on the platform. An id is the platform's own, or `ref:CLIENT_ID` for what an earlier change of
 * the same set made. Links inside `html` may be written `ref:CLIENT_ID` or `item:PLATFORM_ID`.
 */
export const Change = z.discriminatedUnion('change', [
  z.strictObject({
    change: z.literal('set-course'),
    name: Name.optional(),
    label: z.string().max(300).optional(),
    published: z.boolean().optional(),
    timeZone: z.string().max(60).optional(),
    opensAt: Instant.optional(),
    closesAt: Instant.optional(),
    settings: CourseSettings.nullable().optional(),
    grading: GradeScheme.nullable().optional(),
  }),
  z.strictObject({
    change: z.literal('set-navigation'),
    navigation: z
      .array(z.strictObject({ label: z.string().max(300), hidden: z.boolean() }))
      .max(100),
  }),
  z.strictObject({ change: z.literal('set-home'), item: Id }),
  z.strictObject({
    change: z.literal('create-module'),
    clientId: ClientId,
    parent: Id.nullable(),
    at: At,
    fields: ModuleFields.required({ name: true }),
  }),
  z.strictObject({
    change: z.literal('create-item'),
    clientId: ClientId,
    module: Id.nullable(),
    at: At,
    kind: ItemKind,
    fields: ItemFields.required({ name: true }),
  }),
  z.strictObject({ change: z.literal('set-module'), id: Id, fields: ModuleFields }),
  z.strictObject({ change: z.literal('set-item'), id: Id, fields: ItemFields }),
  z.strictObject({ change: z.literal('move-module'), id: Id, at: At }),
  z.strictObject({ change: z.literal('move-item'), id: Id, module: Id.nullable(), at: At }),
  z.strictObject({ change: z.literal('remove-module'), id: Id }),
  z.strictObject({ change: z.literal('remove-item'), id: Id }),
  z.strictObject({ change: z.literal('duplicate-item'), id: Id, clientId: ClientId }),
])
export type Change = z.output<typeof Change>
export const mostChanges = 5000
