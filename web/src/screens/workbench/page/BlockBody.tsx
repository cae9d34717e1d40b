import type { ComponentType } from 'react'
import type { Block } from '@wickerframe/core'
import { AskedHelp } from './AskedHelp.tsx'
import type { BlockEditing } from './blocks/editing.tsx'
import { blockEditors } from './blocks/editors.ts'

/** What a block says, in the editor of its kind. */
export const BlockBody = <Kind extends Block['kind']>({
  kind,
  editing,
}: {
  kind: Kind
  editing: BlockEditing<Kind>
}) => {
  const Editor: ComponentType<BlockEditing<Kind>> = blockEditors[kind]
  return (
    <>
      <Editor {...editing} />
      <AskedHelp {...editing} />
    </>
  )
}
