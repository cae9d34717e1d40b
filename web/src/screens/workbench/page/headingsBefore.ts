import { analysePage, type Block, type ExpectedPart } from '@wickerframe/core'

/** Level of the last heading above each block, so that the next one skips none. */
export const headingsBefore = (
  blocks: readonly Block[],
  expected: ExpectedPart | null,
): number[] => {
  let level = 2
  return blocks.map((block) => {
    const before = level
    const html =
      expected?.blocks.find(({ key }) => key === block.key)?.html ??
      ('html' in block ? block.html : '')
    for (const heading of analysePage(html).headings) level = heading.level
    return before
  })
}
