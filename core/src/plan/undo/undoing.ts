import { everyCourseItem, type Change, type Course, type CourseItem } from '../../course/index.ts'
import type { Base, BaseEntry } from '../base.ts'
import type { Bodies } from '../bodies.ts'
import { listAt, placeAmong, placesOf, type Places } from '../places.ts'
import type { PlanStep } from '../plan.ts'
import { partStatesOf, type PartState } from './standing.ts'
import type { UndoRecord } from './undoRecord.ts'

export interface UndoInput {
  /** What the deployment did that is taken back. */
  record: UndoRecord
  course: Course
  base: Base
  bodies: Bodies
}

/** What is told of one part. */
export interface UndoStep {
  does: PlanStep['does']
  instance: string
  state: PartState
  name: unknown
  reason: string
  fields?: PlanStep['fields']
  because?: PlanStep['because']
}

/** An undo while it is worked out: how everything stands now, and what is told and changed so far. */
export interface Undoing extends UndoInput {
  /** By instance: what the base said before and after the deployment, and what it says now. */
  baseBefore: ReadonlyMap<string, BaseEntry>
  baseAfter: ReadonlyMap<string, BaseEntry>
  baseNow: ReadonlyMap<string, BaseEntry>
  /** What a later deployment made again of what this one removed and stands now: its id, by the id it had. */
  madeAgain: ReadonlyMap<string, string>
  /** How each part stands now, by platform id. */
  states: ReadonlyMap<string, PartState>
  /** By platform id. */
  items: ReadonlyMap<string, CourseItem>
  places: Places
  steps: PlanStep[]
  changes: Change[]
  /** The instance of what comes back under a new id, by the id it had. */
  remade: Map<string, string>
  removed: Set<string>
  /** What each question that comes back is called in the change set, by the id it had. */
  questions: Map<string, string>
  /** Pages as they are written, by platform id, before their links lead elsewhere. */
  pages: Map<string, string>
  /** Keys of the blocks that are what they were before, by the instance they stand in. */
  blocksBack: Map<string, ReadonlySet<string>>
  tell: (step: UndoStep) => void
  nameOf: (id: string | null) => string | null
  /** The id something has once the undo is carried out. */
  idNow: (id: string | null) => string | null
  standsNow: (id: string | null) => boolean
  /** Ids of what stands where parts of a kind stand; changed in place. */
  listOf: (kind: PartState['kind'], parent: string | null) => string[]
  /** Where something stood before, among what stands there now. */
  placeOf: (id: string, kind: PartState['kind'], parent: string | null) => number
}

/** Why what a deployment removed does not come back where a later one made it again: there would be two of it. */
export const wasMadeAgain = 'a later rollout made it again; that stays'

const byInstance = (entries: readonly BaseEntry[]): Map<string, BaseEntry> =>
  new Map(entries.map((entry) => [entry.instance, entry]))

export const startUndoing = (input: UndoInput): Undoing => {
  const { record, course, base, bodies } = input
  const states = partStatesOf(course, bodies)
  const places = placesOf(course)
  const baseBefore = byInstance(record.base.entries)
  const baseNow = byInstance(base.parts)
  const madeAgain = new Map(
    record.touched.flatMap(({ id, instance, before, after }) => {
      const now = baseNow.get(instance)?.platformId
      return before && !after && now !== undefined && now !== id && states.has(now)
        ? [[id, now] as const]
        : []
    }),
  )
  const steps: PlanStep[] = []
  const remade = new Map<string, string>()
  const removed = new Set<string>()
  const nameOf = (id: string | null): string | null =>
    id === null ? null : String(states.get(id)?.fields['name'] ?? '') || null
  const idNow = (id: string | null): string | null =>
    id === null ? null : remade.has(id) ? `ref:${remade.get(id)}` : (madeAgain.get(id) ?? id)
  const isThere = (id: string): boolean => states.has(id) && !removed.has(id)
  const listOf = (kind: PartState['kind'], parent: string | null): string[] =>
    places.idsIn(listAt(kind, parent))
  const orderBefore = (kind: PartState['kind'], parent: string | null): readonly string[] =>
    record.lists.find((list) => list.of === listAt(kind, parent).of && list.parent === parent)
      ?.before ?? []
  return {
    ...input,
    baseBefore,
    baseAfter: byInstance(record.base.after),
    baseNow,
    madeAgain,
    states,
    items: new Map(everyCourseItem(course).map(({ item }) => [item.id, item])),
    places,
    steps,
    changes: [],
    remade,
    removed,
    pages: new Map(),
    questions: new Map(),
    blocksBack: new Map(),
    tell: ({ does, instance, state, name, reason, fields = [], because }) =>
      steps.push({
        does,
        instance,
        part: baseNow.get(instance)?.part ?? baseBefore.get(instance)?.part ?? instance,
        kind: state.kind,
        name: String(name),
        into: nameOf(state.parent),
        ...(because ? { because } : {}),
        opensAt: null,
        dueAt: null,
        reason,
        fields,
      }),
    nameOf,
    idNow,
    standsNow: (id) => id === null || remade.has(id) || isThere(madeAgain.get(id) ?? id),
    listOf,
    placeOf: (id, kind, parent) => {
      const list = listOf(kind, idNow(parent))
      const siblings = orderBefore(kind, parent).map((sibling) => idNow(sibling) ?? sibling)
      return placeAmong(list, siblings, idNow(id) ?? id) ?? list.length
    },
  }
}
