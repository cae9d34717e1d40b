import { LineField, WrittenField, type BlockEditing } from './editing.tsx'
import { PickImage } from './PickImage.tsx'

export const LetterEditor = (of: BlockEditing<'letter'>) => {
  const { block, template, set } = of
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
      <PickImage
        label="Portrait, until they put their own in its place"
        none="none"
        value={block.portrait}
        template={template}
        onDone={(portrait) => set('portrait', block.portrait, portrait)}
      />
    </div>
  )
}
