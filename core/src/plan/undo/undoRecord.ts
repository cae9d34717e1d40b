import { z } from 'zod'
import type { Change, Course } from '../../course/index.ts'
import { BaseEntry, FieldBase, type Base } from '../base.ts'
import { bodiesOfEntries, type Bodies } from '../bodies.ts'
import { sameValue } from '../mergeCase.ts'
import { listAt, placesOf, type ListAt } from '../places.ts'
import { courseFields, courseValue, PartState, partStatesOf } from './standing.ts'

/** What a deployment changed of a base: every value before and after it. */
export const BaseChange = z.strictObject({
  course: z.record(z.string(), FieldBase).describe('Fields of the course itself, before'),
  courseAfter: z.record(z.string(), FieldBase).default({}),
  entries: z.array(BaseEntry).describe('Of every part whose base it changed, as it was before'),
  after: z.array(BaseEntry).default([]).describe('Of every part whose base it changed or made'),
  order: z
    .strictObject({ before: z.array(z.string()), after: z.array(z.string()) })
    .default({ before: [], after: [] })
    .describe('Instances in the order of the base'),
})
export type BaseChange = z.output<typeof BaseChange>

/** Which list an order is of, as `ListAt` has it. */
const listAtShape = { of: z.enum(['modules', 'items', 'all']), parent: z.string().nullable() }

/** What one deployment did to a course, so that it can be taken back. */
export const UndoRecord = z.strictObject({
  /** By platform id; null: it did not stand then. */
  touched: z.array(
    z.strictObject({
      id: z.string(),
      instance: z.string(),
      before: PartState.nullable(),
      after: PartState.nullable(),
    }),
  ),
  /** Orders that it changed. */
  lists: z.array(
    z.strictObject({ ...listAtShape, before: z.array(z.string()), after: z.array(z.string()) }),
  ),
  course: z.record(z.string(), z.strictObject({ before: z.json(), after: z.json() })),
  base: BaseChange,
})
export type UndoRecord = z.output<typeof UndoRecord>

/** How everything stood that a change set is about to touch; kept beside the set, so that what it did can be told even after a crash. */
export const BeforeChanges = z.strictObject({
  standings: z.record(z.string(), PartState),
  lists: z.array(z.strictObject({ ...listAtShape, ids: z.array(z.string()) })),
  course: z.record(z.string(), z.json()),
})
export type BeforeChanges = z.output<typeof BeforeChanges>

/** Ids of every body that what stood before a change set names. */
export const bodiesBefore = (before: BeforeChanges): string[] => [
  ...new Set(Object.values(before.standings).flatMap(({ html }) => html ?? [])),
]

/** Ids of every body that an undo record names: all of them must be kept as long as it is. */
export const bodiesOfRecord = (record: UndoRecord): string[] => [
  ...new Set([
    ...record.touched.flatMap(({ before, after }) =>
      [before?.html, after?.html].flatMap((html) => html ?? []),
    ),
    ...bodiesOfEntries([...record.base.entries, ...record.base.after]),
  ]),
]

/** Of a change set: the platform ids it touches, created ones by their client id. */
const touchedBy = (changes: readonly Change[]): string[] => [
  ...new Set(
    changes.flatMap((change) =>
      'id' in change ? [change.id] : 'clientId' in change ? [`ref:${change.clientId}`] : [],
    ),
  ),
]

export const beforeChanges = (
  changes: readonly Change[],
  course: Course,
  bodies: Bodies,
): BeforeChanges => {
  const standings = partStatesOf(course, bodies)
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
      .flatMap((parent): ListAt[] =>
        parent === null ? [listAt('module', null), listAt('item', null)] : [listAt('', parent)],
      )
      .map((list) => ({ ...list, ids: [...places.idsIn(list)] })),
    course: Object.fromEntries(courseFields.map((field) => [field, courseValue(course, field)])),
  }
}

const baseChange = (before: Base, after: Base): BaseChange => {
  const was = new Map(before.parts.map((entry) => [entry.instance, entry]))
  const is = new Map(after.parts.map((entry) => [entry.instance, entry]))
  return {
    course: before.course,
    courseAfter: after.course,
    entries: before.parts.filter((entry) => !sameValue(entry, is.get(entry.instance))),
    after: after.parts.filter((entry) => !sameValue(entry, was.get(entry.instance))),
    order: {
      before: before.parts.map((entry) => entry.instance),
      after: after.parts.map((entry) => entry.instance),
    },
  }
}

/**
 * What a change set did: how everything it touched stood before and after, and what became of the base.
 * @param ids the platform's id for each client id
 */
export const undoRecordOf = (
  changes: readonly Change[],
  before: BeforeChanges,
  course: Course,
  ids: Readonly<Record<string, string>>,
  base: Base,
  baseAfterwards: Base,
  bodies: Bodies,
): UndoRecord => {
  const is = partStatesOf(course, bodies)
  const places = placesOf(course)
  const instanceOf = new Map(
    [...base.parts, ...baseAfterwards.parts].map((entry) => [entry.platformId, entry.instance]),
  )
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
      const then = places.idsIn({ of, parent })
      return sameValue(first, then) ? [] : [{ of, parent, before: first, after: then }]
    }),
    course: Object.fromEntries(
      courseFields.flatMap((field) =>
        sameValue(before.course[field], courseValue(course, field))
          ? []
          : [[field, { before: before.course[field] ?? null, after: courseValue(course, field) }]],
      ),
    ),
    base: baseChange(base, baseAfterwards),
  }
}
