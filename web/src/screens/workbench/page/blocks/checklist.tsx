import { TextLines } from '../../../../controls/typed.tsx'
import { HeadingField, type BlockEditing } from './editing.tsx'

export const ChecklistEditor = ({ block, set }: BlockEditing<'checklist'>) => (
  <div className="grid gap-2">
    <HeadingField label={block.label} set={set} />
    <TextLines
      label="One line for each thing to tick off"
      value={block.lines.join('\n')}
      onDone={(text) => {
        const lines = text
          .split('\n')
          .map((line) => line.trim())
          .filter((line) => line !== '')
        if (lines.length > 0) set('lines', block.lines, lines)
      }}
    />
  </div>
)
