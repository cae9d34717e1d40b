import { blockKindWords } from '@wickerframe/core'
import { Pick } from '../../../../controls/controls.tsx'
import type { BlockEditing } from './editing.tsx'

export const KeptBlockEditor = ({ block, template, set }: BlockEditing<'kept-block'>) => {
  const kept = template.keptBlocks.find((candidate) => candidate.key === block.kept)
  return (
    <>
      <Pick
        label="Shows"
        value={block.kept}
        onChange={(event) => set('kept', block.kept, event.target.value)}
        options={template.keptBlocks.map((block) => ({ value: block.key, text: block.title }))}
      />
      <p className="mt-1 text-ink-2">
        {kept
          ? `A ${blockKindWords(kept.block.kind)}; corrected under Shared pieces, and everywhere at once.`
          : ''}
      </p>
    </>
  )
}
