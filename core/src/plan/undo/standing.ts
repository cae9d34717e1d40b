import { z } from 'zod'
import {
  type Course,
  type CourseItem,
  type CourseModule,
  CourseQuestion,
  everyCourseItem,
  modulesIn,
} from '../../course/index.ts'
import { ItemKind } from '../../template/index.ts'
import type { FieldBase } from '../base.ts'
import type { Bodies } from '../bodies.ts'

/** A module or item as it stood at a moment. */
export const PartState = z.strictObject({
  kind: z.union([ItemKind, z.literal('module')]),
  fields: z.record(z.string(), z.json()),
  html: z.string().nullable().describe('Id of its page; null: it has none'),
  questions: z
    .array(CourseQuestion)
    .nullable()
    .default(null)
    .describe('null: the platform does not tell them, or it has none'),
  url: z.string().nullable(),
  parent: z.string().nullable().describe('Platform id of the module it stood in'),
})
export type PartState = z.output<typeof PartState>

const itemFields = [
  'name',
  'published',
  'staffOnly',
  'opensAt',
  'dueAt',
  'closesAt',
  'points',
  'category',
  'target',
  'work',
  'rubric',
  'file',
  'carried',
] as const
const moduleFields = ['name', 'published', 'staffOnly', 'opensAt', 'carried'] as const

const valuesOf = (of: CourseItem | CourseModule, fields: readonly string[]) =>
  Object.fromEntries(
    fields.map((field) => [
      field,
      ((of as Record<string, unknown>)[field] ?? null) as FieldBase['sent'],
    ]),
  )

/** Everything that stands in a course, by platform id. */
export const partStatesOf = (course: Course, bodies: Bodies): Map<string, PartState> => {
  const standings = new Map<string, PartState>()
  const readModules = (modules: readonly CourseModule[], parent: string | null) => {
    for (const module of modules) {
      standings.set(module.id, {
        kind: 'module',
        fields: valuesOf(module, moduleFields),
        html: null,
        questions: null,
        url: module.url ?? null,
        parent,
      })
      readModules(modulesIn(module), module.id)
    }
  }
  readModules(course.modules, null)
  for (const { item, module } of everyCourseItem(course))
    standings.set(item.id, {
      kind: item.kind,
      fields: valuesOf(item, itemFields),
      html: item.html === null ? null : bodies.idOf(item.html),
      questions: item.questions ?? null,
      url: item.url,
      parent: module?.id ?? null,
    })
  return standings
}

export const courseFields = [
  'name',
  'label',
  'timeZone',
  'opensAt',
  'closesAt',
  'settings',
  'grading',
  'navigation',
  'homePage',
] as const
/** A field of the course itself; null where nothing is set. */
export const courseValue = (course: Course, field: string): FieldBase['sent'] =>
  ((course as Record<string, unknown>)[field] ?? null) as FieldBase['sent']
