import { z } from 'zod'
import { FieldValues, Key } from '@wickerframe/core'
import { Begun, large, type Routes } from './asked.ts'

export const ProposedRename = z.strictObject({
  what: z.enum(['course', 'module', 'item']),
  id: z
    .string()
    .min(1)
    .max(200)
    .describe('Of the module or item on the platform; of the course itself, any text'),
  was: z
    .string()
    .max(2000)
    .describe('The name it bears now; one that was changed since is left alone'),
  name: z.string().min(1).max(2000),
})
export type ProposedRename = z.output<typeof ProposedRename>
export const RenameRequest = z.strictObject({
  names: z
    .array(ProposedRename.extend({ course: z.number().int().positive() }))
    .min(1)
    .max(10_000),
})
export const NameInUse = z.strictObject({
  course: z.number(),
  code: z.string(),
  title: z.string(),
  what: ProposedRename.shape['what'],
  id: z.string(),
  name: z.string(),
  values: FieldValues,
  classSections: z.array(z.string()),
  near: z.string(),
})
export type NameInUse = z.output<typeof NameInUse>
export const NamesInUse = z.strictObject({
  names: z.array(NameInUse),

  /** Courses that were not looked at, as there are too many. */
  leftOut: z.number(),
})
export type NamesInUse = z.output<typeof NamesInUse>

export const nameRoutes = {
  namesInUse: {
    method: 'get',
    path: '/api/names',
    summary: 'The names that a part of a template bears in the courses',
    may: 'rename',
    query: z.strictObject({
      template: Key,
      part: Key.describe('`course` for the names of the courses themselves'),
    }),
    answer: NamesInUse,
  },
  planRenames: {
    method: 'post',
    path: '/api/renames',
    summary:
      'Plan new names for courses, modules and items; nothing is written until the plan is approved',
    may: 'rename',
    body: RenameRequest,
    answer: Begun,
    limits: large,
  },
} as const satisfies Routes
