import { foldedName } from '../naming/index.ts'
import type { CourseItem } from '../course/index.ts'
import { chunksOf, type Chunk } from './chunks.ts'

/** An item as the alignment sees it. */
export interface Seen {
  item: CourseItem
  /** Words of its name, numbers as `#`, the topic of its module left out. */
  words: ReadonlySet<string>
  chunks: readonly Chunk[]
  /** Where it stands in its module, 0 to 1. */
  place: number
}

const wordsOf = (name: string, without: ReadonlySet<string>): Set<string> => {
  const folded = foldedName(name)
  return new Set(
    (folded.match(/\p{L}+|\d+/gu) ?? [])
      .map((word) => (/^\d/.test(word) ? '#' : word))
      .filter((word) => !without.has(word)),
  )
}

export const seenItems = (items: readonly CourseItem[], topic: string): Seen[] => {
  const without = new Set(foldedName(topic).match(/\p{L}+/gu) ?? [])
  return items.map((item, i) => ({
    item,
    words: wordsOf(item.name, without),
    chunks: item.html === null ? [] : chunksOf(item.html),
    place: items.length < 2 ? 0.5 : i / (items.length - 1),
  }))
}

const dice = (a: ReadonlySet<string>, b: ReadonlySet<string>): number => {
  if (a.size + b.size === 0) return 1
  let both = 0
  for (const word of a) if (b.has(word)) both += 1
  return (2 * both) / (a.size + b.size)
}

/** Texts of a page with numbers alike. */
const shapeOf = (chunks: readonly Chunk[]): Set<string> =>
  new Set(chunks.map((chunk) => chunk.text.replace(/\d+/g, '#')))

/** How alike two items are, 0 to 1: what they are, what they are called, what they say, where they stand. */
export const likeness = (a: Seen, b: Seen): number => {
  const kind = a.item.kind === b.item.kind ? 1 : 0
  const name = dice(a.words, b.words)
  const place = 1 - Math.abs(a.place - b.place)
  const shared =
    a.chunks.length > 0 && b.chunks.length > 0 ? dice(shapeOf(a.chunks), shapeOf(b.chunks)) : null
  const settings =
    (a.item.points === b.item.points ? 0.5 : 0) + (a.item.category === b.item.category ? 0.5 : 0)
  return shared === null
    ? 0.35 * kind + 0.4 * name + 0.15 * place + 0.1 * settings
    : 0.25 * kind + 0.35 * name + 0.25 * shared + 0.1 * place + 0.05 * settings
}
