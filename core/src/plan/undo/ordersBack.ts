import { movedBetween, placeAmong, placesOf } from '../places.ts'
import type { Undoing } from './undoing.ts'

/** Orders go back to what they were, by the fewest moves, but for what people moved since. */
export const ordersBack = (undoing: Undoing): void => {
  const { changes, course, idNow, states, places, record, standsNow } = undoing
  const comeBack = new Set(
    record.touched.flatMap(({ id, before }) => (before?.kind === 'module' ? [idNow(id)] : [])),
  )
  const isModule = (id: string): boolean => states.get(id)?.kind === 'module' || comeBack.has(id)
  for (const { of, parent, before: was, after } of record.lists) {
    if (!standsNow(parent)) continue
    const list = places.idsIn({ of, parent: idNow(parent) })
    const movedSince =
      parent === null || states.has(parent)
        ? movedBetween(after, placesOf(course).idsIn({ of, parent }))
        : new Set<string>()
    const wanted = was.filter((id) => !movedSince.has(id)).map((id) => idNow(id) ?? id)
    const toMove = movedBetween(
      list.filter((id) => wanted.includes(id)),
      wanted,
    )
    for (const id of wanted.filter((sibling) => toMove.has(sibling))) {
      list.splice(list.indexOf(id), 1)
      const fixed = wanted.filter((sibling) => sibling === id || !toMove.has(sibling))
      const at = placeAmong(list, fixed, id) ?? list.length
      toMove.delete(id)
      list.splice(at, 0, id)
      changes.push(
        isModule(id)
          ? { change: 'move-module', id, at }
          : { change: 'move-item', id, module: idNow(parent), at },
      )
    }
  }
}
