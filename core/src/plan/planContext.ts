import {
  everyCourseItem,
  everyModule,
  type Change,
  type Course,
  type CourseItem,
  type CourseModule,
} from '../course/index.ts'
import { everyExpected, type ExpectedCourse, type ExpectedPart } from '../expand/index.ts'
import type { Base, BaseEntry } from './base.ts'
import type { Bodies } from './bodies.ts'
import { decisionFor, noDecisions, type Decision, type FieldStep } from './mergeCase.ts'
import type { NextEntry } from './nextBase.ts'
import type { PlanInput, PlanStep } from './plan.ts'
import { placesOf, type Places } from './places.ts'
import { formatOfName } from './wantedFields.ts'

/** What stands in a course under one platform id. */
export interface ModuleOrItem {
  module: CourseModule | null
  item: CourseItem | null
}

/** What the pieces of a plan are made from, and where they put what they come to. */
export interface PlanContext {
  expected: ExpectedCourse
  course: Course
  base: Base
  bodies: Bodies
  onDate: string
  restoreFixed: boolean
  /** Whether nothing was deployed before, and whether the course is taken over as it stands. */
  first: boolean
  adopts: boolean
  /** Every wanted part, modules before their items, the home page last; without what a break leaves out. */
  parts: readonly ExpectedPart[]
  partOf: ReadonlyMap<string, ExpectedPart>
  entryOf: ReadonlyMap<string, BaseEntry>
  found: ReadonlyMap<string, ModuleOrItem>
  /** Platform id of the module that a module or item stands in; null: in none. */
  standsIn: ReadonlyMap<string, string>
  /** Instances that are created; settled first, so that links to them are written. */
  created: ReadonlySet<string>
  /** Platform id an instance was put under, whether it still stands or not; and where it stands. */
  placed: (instance: string) => string | undefined
  standing: (instance: string) => string | undefined
  /** Its platform id, or how a change set speaks of what it creates. */
  refOf: (instance: string) => string
  /** Instances of siblings in the wanted order, by the module they stand in. */
  siblings: ReadonlyMap<string | null, readonly string[]>
  siblingRefs: (part: ExpectedPart) => readonly string[]
  chosenPart: (part: ExpectedPart) => boolean
  chosenBlock: (part: ExpectedPart, block: string) => boolean
  /** Whether the plan is about a key that no wanted part has any more, or about the course itself. */
  chosenKey: (key: string) => boolean
  decide: (instance: string, field: string) => Decision | null
  nameOf: (instance: string | null) => string | null
  /** Orders as the changes so far leave them. */
  places: Places
  steps: PlanStep[]
  changes: Change[]
  next: NextEntry[]
  tell: (
    does: PlanStep['does'],
    part: ExpectedPart,
    reason: string,
    fields?: FieldStep[],
    name?: string,
  ) => void
}

export const planContext = (input: PlanInput): PlanContext => {
  const {
    expected,
    course,
    base,
    bodies,
    onDate,
    only = null,
    except = [],
    restore = {},
    decisions = noDecisions,
    adopt,
  } = input
  const entryOf = new Map(base.parts.map((entry) => [entry.instance, entry]))
  const found = new Map<string, ModuleOrItem>()
  const standsIn = new Map<string, string>()
  for (const module of everyModule(course.modules)) {
    found.set(module.id, { module, item: null })
    for (const child of module.children) standsIn.set(child.id, module.id)
  }
  for (const { item } of everyCourseItem(course)) found.set(item.id, { module: null, item })
  const parts = [
    ...everyExpected(expected.parts).filter((part) => part.kind === 'module' || !part.inBreak),
    expected.home,
  ]
  const partOf = new Map(parts.map((part) => [part.instance, part]))
  const placed = (instance: string): string | undefined =>
    entryOf.get(instance)?.platformId ?? adopt?.get(instance)
  const standing = (instance: string): string | undefined => {
    const id = placed(instance)
    return id !== undefined && found.has(id) ? id : undefined
  }
  const within = (part: ExpectedPart, keys: readonly string[]): boolean => {
    if (keys.includes(part.key)) return true
    const parent = part.parent === null ? undefined : partOf.get(part.parent)
    return parent !== undefined && within(parent, keys)
  }
  const chosenPart = (part: ExpectedPart): boolean =>
    !within(part, except) && (only === null || within(part, only.parts))
  const chosenBlock = (part: ExpectedPart, block: string): boolean =>
    chosenPart(part) || (only?.blocks.includes(`${part.key}/${block}`) ?? false)

  const created = new Set<string>()
  const decideCreate = (part: ExpectedPart): boolean => {
    if (standing(part.instance) !== undefined || !chosenPart(part)) return false
    if (entryOf.has(part.instance) && !(restore.missingParts && part.strength !== 'may'))
      return false
    return part.parent === null || standing(part.parent) !== undefined || created.has(part.parent)
  }
  for (const part of parts) if (decideCreate(part)) created.add(part.instance)

  const refOf = (instance: string): string => standing(instance) ?? `ref:${instance}`
  const nameOf = (instance: string | null): string | null =>
    instance === null ? null : (partOf.get(instance)?.name ?? null)
  const siblings = new Map<string | null, string[]>([
    [null, [...expected.parts, expected.home].map((part) => part.instance)],
    ...parts.map((part) => [part.instance, part.items.map((item) => item.instance)] as const),
  ])
  const refsOfSiblings = new Map<string | null, string[]>()
  const siblingRefs = (part: ExpectedPart): string[] => {
    let refs = refsOfSiblings.get(part.parent)
    if (!refs)
      refsOfSiblings.set(part.parent, (refs = (siblings.get(part.parent) ?? []).map(refOf)))
    return refs
  }
  const steps: PlanStep[] = []
  return {
    expected,
    course,
    base,
    bodies,
    onDate,
    restoreFixed: restore.fixedText ?? false,
    first: base.parts.length === 0,
    adopts: adopt !== undefined,
    parts,
    partOf,
    entryOf,
    found,
    standsIn,
    created,
    placed,
    standing,
    refOf,
    siblings,
    siblingRefs,
    chosenPart,
    chosenBlock,
    chosenKey: (key) => !except.includes(key) && (only === null || only.parts.includes(key)),
    decide: (instance, field) => decisionFor(decisions, instance, field),
    nameOf,
    places: placesOf(course),
    steps,
    changes: [],
    next: [],
    tell: (does, part, reason, fields = [], name = part.name) =>
      void steps.push({
        does,
        instance: part.instance,
        part: part.key,
        kind: part.kind,
        name,
        into: nameOf(part.parent),
        opensAt: part.opensAt,
        dueAt: part.dueAt,
        reason,
        fields,
      }),
  }
}

/** What a base says of a part whatever became of its fields. */
export const recordOf = (
  part: ExpectedPart,
  expected: ExpectedCourse,
): Omit<NextEntry, 'platformId' | 'fields' | 'freshFields' | 'blocks' | 'page' | 'freshPage'> => ({
  instance: part.instance,
  template: expected.template.key,
  part: part.key,
  repetition: part.repetition,
  number: part.repetitionNumber,
  kind: part.kind,
  parent: part.parent,
  format: formatOfName(part),
})

/** A base that a plan leaves as it is. */
export const unchangedEntry = (entry: BaseEntry): NextEntry => ({
  ...entry,
  freshFields: [],
  blocks: entry.blocks.map((block) => ({ ...block, fresh: false })),
  questions: entry.questions?.map((question) => ({ ...question, clientId: null, fresh: false })),
  freshPage: false,
})
