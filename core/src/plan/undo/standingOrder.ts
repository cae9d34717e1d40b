import { grouped } from '../../grouped/index.ts'
import type { BaseEntry } from '../base.ts'
import { listAt, movedByPeople, placesOf } from '../places.ts'
import type { Undoing } from './undoing.ts'
import { inOrderOf } from './undoneBase.ts'

/** What people moved among its siblings since it was deployed, by instance, as it was before the undo. */
const movedSince = ({ base, baseNow, course, states }: Undoing): Set<string> => {
  const places = placesOf(course)
  const standing = base.parts.filter(({ platformId }) => states.has(platformId))
  return new Set(
    [...grouped(standing, ({ parent }) => parent)].flatMap(([parent, deployed]) => {
      const module = parent === null ? undefined : baseNow.get(parent)?.platformId
      const home = module !== undefined && states.has(module) ? module : null
      return [...movedByPeople(deployed, home, places)]
    }),
  )
}

/**
 * The parts of a base in the order in which the undo leaves them standing: what nobody had moved before it, nobody has moved
 * after it. What people moved, and what does not stand there, stays behind what it follows.
 */
export const inStandingOrder = (parts: readonly BaseEntry[], undoing: Undoing): BaseEntry[] => {
  const { idNow, places } = undoing
  const moved = movedSince(undoing)
  const idOf = new Map(parts.map(({ instance, platformId }) => [instance, idNow(platformId)]))
  const listOf = ({ kind, parent }: BaseEntry) =>
    listAt(kind, parent === null ? null : (idOf.get(parent) ?? null))
  const keyOf = (entry: BaseEntry) => `${listOf(entry).of} ${entry.parent ?? ''}`
  const next = new Map(
    [...grouped(parts, keyOf)].map(([key, siblings]) => {
      const byId = new Map(
        siblings
          .filter(({ instance }) => !moved.has(instance))
          .map(({ instance }) => [idOf.get(instance), instance]),
      )
      const [first] = siblings
      const stand = (first ? places.idsIn(listOf(first)) : []).flatMap((id) => byId.get(id) ?? [])
      const byInstance = new Map(siblings.map((entry) => [entry.instance, entry]))
      const order = inOrderOf(stand, [...byInstance.keys()])
      return [key, order.flatMap((instance) => byInstance.get(instance) ?? [])] as const
    }),
  )
  // Each among its siblings alone: where they stand among others says nothing.
  return parts.map((entry) => next.get(keyOf(entry))?.shift() ?? entry)
}
