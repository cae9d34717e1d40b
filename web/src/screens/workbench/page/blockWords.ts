import { offeredBlocks, type Block, type BlockGroup } from '@wickerframe/core'

/** What a kind of block is called. */
export const blockTitle = (kind: Block['kind']): string =>
  offeredBlocks.find((offered) => offered.kind === kind)?.title ?? kind

const groupTitles: readonly (readonly [BlockGroup, string])[] = [
  ['written', 'Written here'],
  ['left', 'Left to the instructor'],
  ['kept', 'Kept centrally'],
  ['made', 'Made from the course'],
]
/** In the order in which they are offered: written by the template, left to the instructor, made from the course. */
export const blockGroups: readonly (readonly [string, readonly Block['kind'][]])[] =
  groupTitles.map(([group, title]) => [
    title,
    offeredBlocks.flatMap((offered) => (offered.group === group ? [offered.kind] : [])),
  ])
