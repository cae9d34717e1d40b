import { z } from 'zod'
import {
  everyCourseItem,
  type Change,
  type Course,
  type CourseItem,
  type CourseModule,
} from '../course/index.ts'
import { ItemKind } from '../template/index.ts'
import { BaseEntry, FieldBase, type Base, type Bodies } from './base.ts'
import { placesOf } from './places.ts'
import type { NextBase } from './nextBase.ts'
import { sameValue } from './fate.ts'

/** A module or item as it stood at a moment. */
const Standing = z.strictObject({
  kind: z.union([ItemKind, z.literal('module')]),
  fields: z.record(z.string(), z.json()),
  html: z.string().nullable().describe('Id of its page'),
  url: z.string().nullable(),
  parent: z.string().nullable().describe('Platform id of the module it stood in'),
})
export type Standing = z.output<typeof Standing>

/** What one deployment did to a course, so that it can be taken back. */
export const UndoRecord = z.strictObject({
  /** By platform id; null: it did not stand then. */
  touched: z.array(
    z.strictObject({
      id: z.string(),
      instance: z.string(),
      before: Standing.nullable(),
      after: Standing.nullable(),
    }),
  ),
  /** Orders that it changed: of modules or of items, in a module or at the top. */
  lists: z.array(
    z.strictObject({
      of: z.enum(['modules', 'items']),
      parent: z.string().nullable(),
      before: z.array(z.string()),
      after: z.array(z.string()),
    }),
  ),
  course: z.record(z.string(), z.strictObject({ before: z.json(), after: z.json() })),
  base: z.strictObject({
    course: z.record(z.string(), FieldBase),
    entries: z.array(BaseEntry).describe('Of every part whose base it changed, as it was before'),
  }),
})
export type UndoRecord = z.output<typeof UndoRecord>

/** How everything stood that a change set is about to touch; kept beside the set, so that what it did can be told even after a crash. */
export const BeforeChanges = z.strictObject({
  standings: z.record(z.string(), Standing),
  lists: z.array(
    z.strictObject({
      of: z.enum(['modules', 'items']),
      parent: z.string().nullable(),
      ids: z.array(z.string()),
    }),
  ),
  course: z.record(z.string(), z.json()),
})
export type BeforeChanges = z.output<typeof BeforeChanges>

/** Of a change set: the platform ids it touches, created ones by their client id. */
const touchedBy = (changes: readonly Change[]): string[] => [
  ...new Set(
    changes.flatMap((change) =>
      'id' in change ? [change.id] : 'clientId' in change ? [`ref:${change.clientId}`] : [],
    ),
  ),
]
const itemFields = [
  'name',
  'published',
  'opensAt',
  'dueAt',
  'closesAt',
  'points',
  'category',
  'target',
  'work',
  'rubric',
] as const
const moduleFields = ['name', 'published', 'opensAt'] as const

/** Everything that stands in a course, by platform id. */
export const standingsOf = (course: Course, bodies: Bodies): Map<string, Standing> => {
  const standings = new Map<string, Standing>()
  const picked = (of: CourseItem | CourseModule, fields: readonly string[]) =>
    Object.fromEntries(
      fields.map((field) => [
        field,
        ((of as Record<string, unknown>)[field] ?? null) as FieldBase['sent'],
      ]),
    )
  const readModules = (modules: readonly CourseModule[], parent: string | null) => {
    for (const module of modules) {
      standings.set(module.id, {
        kind: 'module',
        fields: picked(module, moduleFields),
        html: null,
        url: null,
        parent,
      })
      readModules(module.modules, module.id)
    }
  }
  readModules(course.modules, null)
  for (const { item, module } of everyCourseItem(course))
    standings.set(item.id, {
      kind: item.kind,
      fields: picked(item, itemFields),
      html: item.html === null ? null : bodies.idOf(item.html),
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
export const courseValue = (course: Course, field: string): FieldBase['sent'] =>
  ((course as Record<string, unknown>)[field] ?? null) as FieldBase['sent']

export const beforeChanges = (
  changes: readonly Change[],
  course: Course,
  bodies: Bodies,
): BeforeChanges => {
  const standings = standingsOf(course, bodies)
  const places = placesOf(course)
  const touched = touchedBy(changes).filter((id) => standings.has(id))
  const parents = new Set<string | null>(touched.map((id) => standings.get(id)?.parent ?? null))
  for (const change of changes) {
    if (change.change === 'create-item' || change.change === 'move-item') parents.add(change.module)
    if (change.change === 'create-module') parents.add(change.parent)
  }
  return {
    standings: Object.fromEntries(
      touched.flatMap((id) => {
        const standing = standings.get(id)
        return standing ? [[id, standing]] : []
      }),
    ),
    lists: [...parents]
      .filter((parent) => parent === null || standings.has(parent))
      .flatMap((parent) => [
        { of: 'modules' as const, parent, ids: [...places.modulesIn(parent)] },
        { of: 'items' as const, parent, ids: [...places.itemsIn(parent)] },
      ]),
    course: Object.fromEntries(courseFields.map((field) => [field, courseValue(course, field)])),
  }
}

/**
 * What a change set did: how everything it touched stood before and after, and the bases before.
 * @param ids the platform's id for each client id
 */
export const undoRecordOf = (
  changes: readonly Change[],
  before: BeforeChanges,
  after: Course,
  ids: Readonly<Record<string, string>>,
  base: Base,
  next: NextBase,
  bodies: Bodies,
): UndoRecord => {
  const is = standingsOf(after, bodies)
  const places = placesOf(after)
  const instanceOf = new Map([
    ...base.parts.map((entry) => [entry.platformId, entry.instance] as const),
    ...next.parts.map(
      (entry) => [entry.platformId ?? ids[entry.instance] ?? '', entry.instance] as const,
    ),
  ])
  const changed = new Map(next.parts.map((entry) => [entry.instance, entry]))
  return {
    touched: touchedBy(changes).map((name) => {
      const id = name.startsWith('ref:') ? (ids[name.slice(4)] ?? name) : name
      return {
        id,
        instance: instanceOf.get(id) ?? id,
        before: before.standings[id] ?? null,
        after: is.get(id) ?? null,
      }
    }),
    lists: before.lists.flatMap(({ of, parent, ids: first }) => {
      const then = of === 'modules' ? places.modulesIn(parent) : places.itemsIn(parent)
      return sameValue(first, then) ? [] : [{ of, parent, before: first, after: then }]
    }),
    course: Object.fromEntries(
      courseFields.flatMap((field) =>
        sameValue(before.course[field], courseValue(after, field))
          ? []
          : [[field, { before: before.course[field] ?? null, after: courseValue(after, field) }]],
      ),
    ),
    base: {
      course: base.course,
      entries: base.parts.filter((entry) => {
        const now = changed.get(entry.instance)
        return (
          !now ||
          now.freshFields.length > 0 ||
          now.freshPage ||
          now.blocks.some((block) => block.fresh) ||
          !sameValue(
            [now.fields, now.parent, now.format, now.page],
            [entry.fields, entry.parent, entry.format, entry.page],
          )
        )
      }),
    },
  }
}
