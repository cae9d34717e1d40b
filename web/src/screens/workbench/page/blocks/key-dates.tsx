import { Pick } from '../../../../controls/controls.tsx'
import { HeadingField, type BlockEditing } from './editing.tsx'

export const KeyDatesEditor = ({ block, set }: BlockEditing<'key-dates'>) => (
  <div className="flex flex-wrap gap-3">
    <HeadingField label={block.label} set={set} />
    <Pick
      label="Shows"
      value={block.of}
      onChange={(event) => set('of', block.of, event.target.value)}
      options={[
        { value: 'module', text: 'what is due in its module' },
        { value: 'term', text: 'the dates of the term' },
      ]}
    />
  </div>
)
