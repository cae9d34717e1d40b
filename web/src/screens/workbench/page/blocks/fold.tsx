import { TextLine } from '../../../../controls/typed.tsx'
import { WrittenField, type BlockEditing } from './editing.tsx'

export const FoldEditor = (of: BlockEditing<'fold'>) => (
  <div className="grid gap-2">
    <TextLine
      label="What is read while it is folded"
      value={of.block.summary}
      onDone={(summary) => summary.trim() !== '' && of.set('summary', of.block.summary, summary)}
    />
    <WrittenField field="html" label="What it says" html={of.block.html} spots of={of} />
  </div>
)
