import type { Problem } from '../document/index.ts'
import type { ItemFile } from '../template/index.ts'
import { same, weakened } from './kept.ts'

/** Where a layer hands out another file than the layer above does. What is left to others it may put in their place. */
export const fileWeakenings = (
  upper: ItemFile | undefined,
  own: ItemFile | undefined,
  path: PropertyKey[],
): Problem[] => {
  if (!upper) return []
  if (!own) return [weakened(path, 'nothing', 'the file of the layer above')]
  return upper.left === undefined && !same(upper, own)
    ? [weakened(path, own, 'the file of the layer above, as it is there')]
    : []
}

/**
 * The file of a part in a newer version of the layer above, with what the layer says of it: of its own where there was none, or in
 * place of one that was left to others and still is.
 */
export const mergedFile = (
  before: ItemFile | undefined,
  own: ItemFile | undefined,
  next: ItemFile | undefined,
): { file: ItemFile | undefined; overruled: boolean } => {
  if (!own || same(own, before)) return { file: next, overruled: false }
  const mayStay = next === undefined || next.left !== undefined
  return mayStay ? { file: own, overruled: false } : { file: next, overruled: !same(own, next) }
}
