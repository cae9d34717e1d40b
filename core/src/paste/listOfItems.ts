import type { Piece } from './piece.ts'

type Item = Extract<Piece, { kind: 'item' }>
type List = Extract<Piece, { kind: 'list' }>

/** One after another, items that were drawn become lists, deeper ones inside the item before them. */
const nested = (items: readonly Item[]): List[] => {
  const lists: List[] = []
  const open: { depth: number; list: List }[] = []
  for (const { depth, ordered, inline } of items) {
    while ((open.at(-1)?.depth ?? 0) > depth) open.pop()
    let at = open.at(-1)
    if (at && at.depth === depth && at.list.ordered !== ordered) {
      open.pop()
      at = open.at(-1)
    }
    if (!at || at.depth < depth) {
      const list: List = { kind: 'list', ordered, items: [] }
      const holder = at?.list.items.at(-1)
      if (holder) holder.push(list)
      else lists.push(list)
      open.push((at = { depth, list }))
    }
    at.list.items.push([{ kind: 'paragraph', inline }])
  }
  return lists
}

/** The same pieces, with lists where items were drawn. */
export const listsOfItems = (pieces: readonly Piece[]): Piece[] => {
  const made: Piece[] = []
  let items: Item[] = []
  const flush = () => {
    made.push(...nested(items))
    items = []
  }
  for (const piece of pieces)
    if (piece.kind === 'item') items.push(piece)
    else {
      flush()
      made.push(piece)
    }
  flush()
  return made
}
