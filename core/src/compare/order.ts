import { fewestMoves } from '../pair/index.ts'

interface Keyed {
  key: string
}

/** Keys that stand in another place among the siblings that both sides have: the fewest that explain the new order. */
export const movedKeys = (before: readonly Keyed[], after: readonly Keyed[]): string[] => {
  const placeBefore = new Map(before.map(({ key }, place) => [key, place]))
  const both = after.filter(({ key }) => placeBefore.has(key))
  return fewestMoves(both.map(({ key }) => placeBefore.get(key) ?? 0)).flatMap(
    (moved) => both[moved]?.key ?? [],
  )
}

/** Where something stands in a list: `first`, `last`, or after its neighbour. */
export const placeWords = (
  list: readonly Keyed[],
  key: string,
  nameOf: (key: string) => string,
): string => {
  const place = list.findIndex((sibling) => sibling.key === key)
  if (place === 0) return 'first'
  if (place === list.length - 1) return 'last'
  return `after ${nameOf(list[place - 1]?.key ?? '')}`
}
