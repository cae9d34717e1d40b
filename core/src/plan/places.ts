import { isCourseModule, type Course, type CourseChild } from '../course/index.ts'
import { fewestMoves } from '../pair/index.ts'
import type { BaseEntry } from './base.ts'

/**
 * What stands in one list: everything in a module, or at the top the modules, or the items outside every module. `of` says
 * which of the two at the top; in a module all stand in one.
 */
export interface ListAt {
  of: 'modules' | 'items' | 'all'
  /** Platform id of the module; null: the top. */
  parent: string | null
}

/** The list in which a part of a kind stands. */
export const listAt = (kind: string, parent: string | null): ListAt => ({
  of: parent !== null ? 'all' : kind === 'module' ? 'modules' : 'items',
  parent,
})

/** The order in which modules and items stand while a change set is made up: what each change does to it is done here too. */
export interface Places {
  /** Ids of what stands in a list, in order; changed in place. */
  idsIn: (list: ListAt) => string[]
  /** The list something stands in; undefined when it stands nowhere. */
  listOf: (id: string) => ListAt | undefined
  /** Every list there is. */
  all: () => { at: ListAt; ids: readonly string[] }[]
}

export const placesOf = (course: Course): Places => {
  const lists = new Map<string, { at: ListAt; ids: string[] }>()
  const idsIn = (at: ListAt): string[] => {
    const key = `${at.of} ${at.parent ?? ''}`
    let list = lists.get(key)
    if (!list) lists.set(key, (list = { at, ids: [] }))
    return list.ids
  }
  const read = (at: ListAt, children: readonly CourseChild[]) => {
    idsIn(at).push(...children.map((child) => child.id))
    for (const module of children.filter(isCourseModule))
      read(listAt('item', module.id), module.children)
  }
  read(listAt('module', null), course.modules)
  read(listAt('item', null), course.stray)
  return {
    idsIn,
    listOf: (id) => [...lists.values()].find(({ ids }) => ids.includes(id))?.at,
    all: () => [...lists.values()],
  }
}

/**
 * Where a part belongs among what stands in a list: after the nearest sibling before it that stands there, else before the
 * nearest one after it, else at the end.
 * @param siblings ids of its siblings and itself, in the wanted order
 * @param yetToMove siblings that stand where they will not stay
 * @returns the place from 0, or null for the end
 */
export const placeAmong = (
  list: readonly string[],
  siblings: readonly string[],
  self: string,
  yetToMove: ReadonlySet<string> = new Set(),
): number | null => {
  const placeOf = (id: string | undefined): number =>
    id === undefined || yetToMove.has(id) ? -1 : list.indexOf(id)
  const at = siblings.indexOf(self)
  for (let i = at - 1; i >= 0; i--) {
    const found = placeOf(siblings[i])
    if (found >= 0) return found + 1 === list.length ? null : found + 1
  }
  for (let i = at + 1; i < siblings.length; i++) {
    const found = placeOf(siblings[i])
    if (found >= 0) return found
  }
  return null
}

/** Of what stands in two orders, the fewest to move to come from the one to the other. */
export const movedBetween = (before: readonly string[], after: readonly string[]): Set<string> => {
  const place = new Map(after.map((id, i) => [id, i]))
  const both = before.filter((id) => place.has(id))
  return new Set(fewestMoves(both.map((id) => place.get(id) ?? 0)).flatMap((i) => both[i] ?? []))
}

/**
 * Instances that people moved among their siblings: the fewest moves tell.
 * @param deployed what was deployed to one parent and stands, in order
 * @param home platform id of that parent; null: the top
 */
export const movedByPeople = (
  deployed: readonly BaseEntry[],
  home: string | null,
  places: Places,
): Set<string> => {
  const order = deployed.map((entry) => entry.instance)
  const instanceOf = new Map(deployed.map((entry) => [entry.platformId, entry.instance]))
  const lists = home === null ? [listAt('module', null), listAt('item', null)] : [listAt('', home)]
  return new Set(
    lists.flatMap((list) => [
      ...movedBetween(
        order,
        places.idsIn(list).flatMap((id) => instanceOf.get(id) ?? []),
      ),
    ]),
  )
}
