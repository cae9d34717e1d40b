import { Pick } from '../../../../controls/controls.tsx'
import { NumberLine, TextLine } from '../../../../controls/typed.tsx'
import { LineField, type BlockEditing } from './editing.tsx'
import { HowShown } from './HowShown.tsx'

export const FromElsewhereEditor = ({ block, template, set }: BlockEditing<'from-elsewhere'>) => (
  <div className="grid gap-2">
    <TextLine
      label="Title"
      value={block.title}
      onDone={(now) => now.trim() !== '' && set('title', block.title, now)}
    />
    <TextLine label="Address" value={block.url} onDone={(now) => set('url', block.url, now)} />
    <HowShown url={block.url} template={template} />
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
