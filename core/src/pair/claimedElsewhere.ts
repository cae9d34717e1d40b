import type { ExpectedPart } from '../expand/index.ts'
import { foldedName } from '../naming/index.ts'
import type { FoundPart } from './evidence.ts'

/** Of the items of a module for which nothing was found, this share stand in another by their names: it was folded into it. */
const leastFolded = 0.5

/**
 * Items that bear the very name of a part of another module: that part, moved. Where the other module was found, nothing
 * in it bears the name; where it was not, most of its parts stand beside the item. Not where links tie it to what stands
 * beside it and not to the other module: then it belongs where it stands, and its name is a slip.
 * @param moduleFor id of the module found for the one a part is expected in, or null
 * @param isTied whether a link leads from an item to one in a module, or from there to the item
 */
export const claimedElsewhere = (
  parts: readonly ExpectedPart[],
  items: readonly FoundPart[],
  moduleFor: (part: ExpectedPart) => string | null,
  isTied: (id: string, module: string | null) => boolean,
): Set<string> => {
  const named = new Map<string, ExpectedPart[]>()
  const wanted = new Map<string | null, number>()
  for (const part of parts) {
    const folded = foldedName(part.name)
    named.set(folded, [...(named.get(folded) ?? []), part])
    wanted.set(part.parent, (wanted.get(part.parent) ?? 0) + 1)
  }
  /** The one part whose name an item bears, where it is a part of another module. */
  const partOf = ({ folded, module }: FoundPart): ExpectedPart | null => {
    const [part, ...others] = named.get(folded) ?? []
    return part && others.length === 0 && part.parent !== null && moduleFor(part) !== module
      ? part
      : null
  }
  const standing = new Set(items.map(({ folded, module }) => `${module} ${folded}`))
  const beside = new Map<string, number>()
  const place = (part: ExpectedPart, item: FoundPart): string => `${part.parent} ${item.module}`
  for (const item of items) {
    const part = partOf(item)
    if (part) beside.set(place(part, item), (beside.get(place(part, item)) ?? 0) + 1)
  }
  const isClaimed = (item: FoundPart): boolean => {
    const part = partOf(item)
    if (!part) return false
    const own = moduleFor(part)
    if (own === null)
      return (beside.get(place(part, item)) ?? 0) >= leastFolded * (wanted.get(part.parent) ?? 1)
    return (
      !standing.has(`${own} ${item.folded}`) &&
      (isTied(item.id, own) || !isTied(item.id, item.module))
    )
  }
  return new Set(items.filter(isClaimed).map(({ id }) => id))
}
