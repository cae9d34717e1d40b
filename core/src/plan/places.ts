import type { Course, CourseModule } from '../course/index.ts'
import { fewestMoves } from '../pair/index.ts'

/** The order in which modules and items stand while a change set is made up: what each change does to it is done here too. */
export interface Places {
  /** Ids of the modules inside a module, or at the top for null. */
  modulesIn: (parent: string | null) => string[]
  /** Ids of the items in a module, or outside every module for null. */
  itemsIn: (module: string | null) => string[]
  /** Module an item stands in; undefined when it stands nowhere. */
  moduleOf: (item: string) => string | null | undefined
}

export const placesOf = (course: Course): Places => {
  const modules = new Map<string | null, string[]>([
    [null, course.modules.map((module) => module.id)],
  ])
  const items = new Map<string | null, string[]>([[null, course.stray.map((item) => item.id)]])
  const visit = (module: CourseModule) => {
    modules.set(
      module.id,
      module.modules.map((inner) => inner.id),
    )
    items.set(
      module.id,
      module.items.map((item) => item.id),
    )
    module.modules.forEach(visit)
  }
  course.modules.forEach(visit)
  const listIn =
    (of: Map<string | null, string[]>) =>
    (id: string | null): string[] => {
      let list = of.get(id)
      if (!list) of.set(id, (list = []))
      return list
    }
  return {
    modulesIn: listIn(modules),
    itemsIn: listIn(items),
    moduleOf: (item) => [...items].find(([, ids]) => ids.includes(item))?.[0],
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
