import type { ExpectedPart } from '../expand/index.ts'
import { foldedName } from '../naming/index.ts'
import type { FoundPart } from './evidence.ts'

/** Items that bear the very name of a part of another module in which nothing bears it: they are that part, moved. */
export const claimedElsewhere = (
  parts: readonly ExpectedPart[],
  items: readonly FoundPart[],
  moduleFor: (part: ExpectedPart) => string | null,
): Set<string> => {
  const names = new Map<string, ExpectedPart[]>()
  for (const part of parts) {
    const folded = foldedName(part.name)
    names.set(folded, [...(names.get(folded) ?? []), part])
  }
  const standing = new Set(items.map(({ folded, module }) => `${module} ${folded}`))
  return new Set(
    items.flatMap(({ id, folded, module }) => {
      const [part, ...others] = names.get(folded) ?? []
      const own = part ? moduleFor(part) : null
      return part &&
        others.length === 0 &&
        own !== null &&
        own !== module &&
        !standing.has(`${own} ${folded}`)
        ? [id]
        : []
    }),
  )
}
