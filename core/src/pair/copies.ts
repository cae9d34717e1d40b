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
  // Each run of spaces is looked at from its beginning alone.
  `^copy of |^copy - |(?<![\\s-])[\\s-]*\\(copy\\)$|(?<![\\s-]|(?<!\\p{L})(?:${[...leadsToCopy].join('|')}))[\\s-]+copy(?: \\d+)?$|(?<![\\s-])\\s+-[\\s-]*copy(?: \\d+)?$|(?<!\\s)\\s*\\(\\d{1,2}\\)$`,
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
