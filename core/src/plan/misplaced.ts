import type { Course } from '../course/index.ts'
import { movedBetween, placesOf, type ListAt } from './places.ts'

const nameOf = ({ of, parent }: ListAt): string => `${of} ${parent ?? ''}`

/**
 * Ids of what stands in another list of a course than it was to, or in another order there; of what is not there at all, nothing is
 * said. In which order items stand outside every module is the platform's.
 */
export const misplaced = (wanted: Course, there: Course): ReadonlySet<string> => {
  const lists = placesOf(there).all()
  const listOf = new Map(lists.flatMap(({ at, ids }) => ids.map((id) => [id, nameOf(at)])))
  const idsIn = new Map(lists.map(({ at, ids }) => [nameOf(at), ids]))
  return new Set(
    placesOf(wanted)
      .all()
      .flatMap(({ at, ids }) => {
        const name = nameOf(at)
        const known = ids.filter((id) => listOf.has(id))
        const inIt = new Set(known.filter((id) => listOf.get(id) === name))
        const order = (idsIn.get(name) ?? []).filter((id) => inIt.has(id))
        return [
          ...known.filter((id) => !inIt.has(id)),
          ...(at.of === 'items' ? [] : movedBetween([...inIt], order)),
        ]
      }),
  )
}
