import {
  everyObjective,
  everyPart,
  homePageKey,
  isModule,
  type Block,
  type Left,
  type Template,
} from '@wickerframe/core'
import type { KeptFile } from '@wickerframe/contract'
import { useDraftStore } from '../draftStore.ts'
import { holdFiles } from '../files/fileEdits.ts'
import {
  addBlock,
  addDocuments,
  addPicture,
  duplicateBlock,
  isTextBlock,
  joinTexts,
  keepBlock,
  leaveBlock,
  loosenBlock,
  moveBlock,
  removeBlock,
  splitText,
  type BlockEdits,
  type BlocksOfPage,
} from './blockEdits.ts'
import type { FromAbove } from './fromAbove.ts'
import { heldFor, nothingOffered, withOffered, type Offered } from './fromLibrary.ts'
import type { DescribedPicture } from './PictureForm.tsx'

/** The blocks of a page of a template; empty where there is no such page. */
export const blocksOfPage = (template: Template, part: string): readonly Block[] => {
  if (part === homePageKey) return template.home.blocks
  const found = everyPart(template).find(({ key }) => key === part)
  return found && !isModule(found) ? found.blocks : []
}
const nameOfPage = (template: Template, part: string): string =>
  part === homePageKey
    ? 'the home page'
    : (everyPart(template).find(({ key }) => key === part)?.name ?? 'a page')

/**
 * What can be done with the blocks of a page of the open draft, as it stands when it is done: each is one step of undo. They give
 * back the key of the block to look at then; null: it could not be done.
 */
export const blockActs = (part: string, offered: Offered = nothingOffered) => {
  const make = (
    edits: (page: BlocksOfPage, draft: Template) => BlockEdits | null,
  ): string | null => {
    const { draft, edit } = useDraftStore.getState()
    const made = draft && edits({ part, blocks: blocksOfPage(draft, part) }, draft)
    return made && edit(...made.edits) ? made.block : null
  }
  const withBlock = (
    key: string,
    edits: (page: BlocksOfPage, block: Block, draft: Template) => BlockEdits | null,
  ): string | null =>
    make((page, draft) => {
      const block = page.blocks.find((other) => other.key === key)
      return block ? edits(page, block, draft) : null
    })
  return {
    set: (key: string, field: string, was: unknown, value: unknown): void => {
      const { draft, edit } = useDraftStore.getState()
      const block = draft && blocksOfPage(draft, part).find((one) => one.key === key)
      edit(...(block ? heldFor({ ...block, [field]: value } as Block, draft, offered) : []), {
        edit: 'set-block',
        part,
        block: key,
        field,
        was: was ?? null,
        value: value ?? null,
      })
    },
    add: (kind: Block['kind'], at: number) =>
      make((page, draft) => {
        const made = addBlock(page, at, kind, withOffered(draft, offered))
        return made && { ...made, edits: [...heldFor(made.added, draft, offered), ...made.edits] }
      }),
    addPicture: (picture: DescribedPicture, at: number) =>
      make((page) => addPicture(page, at, picture)),
    addDocuments: (kept: readonly KeptFile[], after: string | null) =>
      make((page, draft) => {
        const { edits, files } = holdFiles(draft, kept)
        const made = addDocuments(page, after, files)
        return made && { ...made, edits: [...edits, ...made.edits] }
      }),
    moveTo: (key: string, at: number) =>
      withBlock(key, (page, block) => moveBlock(page, block, at)),
    duplicate: (key: string) =>
      withBlock(key, (page, block, draft) =>
        duplicateBlock(page, block, new Set(everyObjective(draft).map((each) => each.key))),
      ),
    split: (key: string, halves: readonly [string, string]) =>
      withBlock(key, (page, block) => (isTextBlock(block) ? splitText(page, block, halves) : null)),
    join: (key: string, fromAbove: FromAbove) =>
      withBlock(key, (page, block) =>
        isTextBlock(block) ? joinTexts(page, block, fromAbove) : null,
      ),
    leave: (key: string, way: Left['as'] | null) =>
      withBlock(key, (page, block) => leaveBlock(page, block, way)),
    keep: (key: string) =>
      withBlock(key, (page, block, draft) =>
        block.kind === 'kept-block' ? null : keepBlock(page, block, nameOfPage(draft, part), draft),
      ),
    loosen: (key: string) =>
      withBlock(key, (page, block, draft) =>
        block.kind === 'kept-block' ? loosenBlock(page, block, draft) : null,
      ),
    remove: (key: string): { next: string | null } | null => {
      const { draft, edit } = useDraftStore.getState()
      const blocks = draft ? blocksOfPage(draft, part) : []
      const block = blocks.find((other) => other.key === key)
      if (!block) return null
      const { edits, block: next } = removeBlock({ part, blocks }, block)
      return edit(...edits) ? { next } : null
    },
  }
}
export type BlockActs = ReturnType<typeof blockActs>
