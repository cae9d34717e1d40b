import { leftAs, type Block } from '@wickerframe/core'

/** Blocks of the layer above on a page, by their key. */
export type FromAbove = ReadonlyMap<string, Block>

export const byKey = (blocks: readonly Block[]): FromAbove =>
  new Map(blocks.map((block) => [block.key, block]))

/** Whether what a block says may be changed here: it is this template's own, or the layer above leaves it to others. */
export const mayBeWorded = (block: Block, above: FromAbove): boolean => {
  const upper = above.get(block.key)
  return upper === undefined || leftAs(upper) !== null
}
