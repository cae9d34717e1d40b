import { HeadingField, LinesField, type BlockEditing } from './editing.tsx'

export const ChecklistEditor = ({ block, set }: BlockEditing<'checklist'>) => (
  <div className="grid gap-2">
    <HeadingField label={block.label} set={set} />
    <LinesField
      label="One line for each thing to tick off"
      lines={block.lines}
      onDone={(lines) => lines.length > 0 && set('lines', block.lines, lines)}
    />
  </div>
)
