import { Pick } from '../../../../controls/controls.tsx'
import { NumberLine } from '../../../../controls/typed.tsx'
import { LineField, type BlockEditing } from './editing.tsx'
import { TitleAndAddress } from './TitleAndAddress.tsx'

export const FromElsewhereEditor = ({ block, template, set }: BlockEditing<'from-elsewhere'>) => (
  <div className="grid gap-2">
    <TitleAndAddress block={block} template={template} set={set} />
    <LineField
      field="about"
      label="What it is, and what one does with it"
      value={block.about}
      set={set}
    />
    <div className="flex flex-wrap items-end gap-3">
      <Pick
        label="Shape"
        value={block.shape ?? 'wide'}
        onChange={(event) => set('shape', block.shape, event.target.value)}
        options={[
          { value: 'wide', text: 'wide, as a film' },
          { value: 'square', text: 'square' },
          { value: 'tall', text: 'tall, as a page' },
        ]}
      />
      <NumberLine
        label="Minutes"
        most={600}
        value={block.minutes}
        onDone={(value) => set('minutes', block.minutes, value)}
      />
    </div>
  </div>
)
