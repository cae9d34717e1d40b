import type { CourseItem, PlacedItem } from '../course/index.ts'
import type { ExpectedPart } from '../expand/index.ts'
import { foldedName, leadsToCopy } from '../naming/index.ts'
import type { PageFacts } from '../page/index.ts'

/** A second copy of what was paired already. */
export interface Copy {
  /** Instance whose copy it is. */
  of: string
  found: string
}

/** What copying leaves in a name, at its beginning or end; after some words a copy is a thing: `Make a copy`. */
export const copyMark = new RegExp(
  [
    '^copy of ',
    '^copy - ',
    // Each run of spaces and dashes is looked at from its beginning alone.
    String.raw`(?<![\s-])[\s-]*\(copy\)$`,
    String.raw`(?<![\s-]|(?<!\p{L})(?:${[...leadsToCopy].join('|')}))[\s-]+copy(?: \d+)?$`,
    // With a dash that stands by itself it is a mark after any word.
    String.raw`(?<![\s-])\s+-[\s-]*copy(?: \d+)?$`,
    String.raw`(?<!\s)\s*\(\d{1,2}\)$`,
  ].join('|'),
  'iu',
)

/** Unpaired items that carry the marks of a paired part, or in the same module its very name with or without a mark of copying. */
export const copiesOf = (
  parts: readonly ExpectedPart[],
  foundFor: (instance: string) => string | null,
  unpaired: readonly PlacedItem[],
  moduleOfItem: ReadonlyMap<string, string | null>,
  pageOf: (item: CourseItem) => PageFacts | null,
): Copy[] => {
  if (unpaired.length === 0) return []
  const byName = new Map<string, ExpectedPart[]>()
  for (const part of parts) {
    const folded = foldedName(part.name)
    byName.set(folded, [...(byName.get(folded) ?? []), part])
  }
  return unpaired.flatMap(({ item, module }) => {
    const marked = pageOf(item)?.markedPart ?? null
    const original = marked !== null && foundFor(marked) !== null ? marked : null
    const namesake = () =>
      byName.get(foldedName(item.name.replace(copyMark, '')))?.find((part) => {
        const found = foundFor(part.instance)
        return found !== null && (moduleOfItem.get(found) ?? null) === (module?.id ?? null)
      })
    const of = original ?? namesake()?.instance
    return of ? [{ of, found: item.id }] : []
  })
}
