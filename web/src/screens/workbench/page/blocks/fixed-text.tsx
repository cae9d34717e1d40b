import { waysToLeave, type Block } from '@wickerframe/core'
import { blockTitle } from '../blockWords.ts'
import { HtmlField, type BlockEditing } from './editing.tsx'

/** For every kind of block that is text and nothing else. */
export const TextEditor = (
  of: Omit<BlockEditing<Block['kind']>, 'block'> & { block: { kind: Block['kind']; html: string } },
) => (
  <HtmlField
    field="html"
    label={blockTitle(of.block.kind)}
    html={of.block.html}
    spots={waysToLeave(of.block.kind).length > 0}
    of={of}
  />
)
