import { LineField, WrittenField, type BlockEditing } from './editing.tsx'
import { PortraitField } from './PortraitField.tsx'

export const LetterEditor = (of: BlockEditing<'letter'>) => {
  const { block, set } = of
  return (
    <div className="grid gap-2">
      <WrittenField field="html" label="What it says" html={block.html} spots of={of} />
      <LineField
        field="signed"
        label="Signed"
        hint="empty: by those who teach the course"
        value={block.signed}
        set={set}
      />
      <PortraitField portrait={block.portrait} of={of} set={set} />
    </div>
  )
}
