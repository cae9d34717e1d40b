import {
  newBlock,
  offeredBlocks,
  type Block,
  type BlockGroup,
  type Template,
} from '@wickerframe/core'
import type { MenuGroup } from '../../../controls/menu.tsx'

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

/** Every kind of block as a menu offers it; one that the template has nothing for cannot be chosen. */
export const blockMenu = (template: Template): MenuGroup<Block['kind']>[] =>
  blockGroups.map(([title, kinds]) => ({
    title,
    items: kinds.map((kind) => ({
      value: kind,
      text: blockTitle(kind),
      disabled: newBlock(kind, 'x', template) === null,
    })),
  }))
