import { NumberLine, Tick } from '../../../../controls/typed.tsx'
import { LineField, type BlockEditing } from './editing.tsx'
import { TitleAndAddress } from './TitleAndAddress.tsx'

export const VideoEditor = ({ block, template, set }: BlockEditing<'video'>) => (
  <div className="grid gap-2">
    <TitleAndAddress block={block} template={template} set={set} />
    <div className="flex flex-wrap items-end gap-3">
      <NumberLine
        label="Minutes"
        most={600}
        value={block.minutes}
        onDone={(value) => set('minutes', block.minutes, value)}
      />
      <Tick
        label="has captions"
        checked={block.captions}
        onChange={(checked) => set('captions', block.captions, checked)}
      />
    </div>
    <LineField
      field="transcript"
      label="Address of the transcript"
      value={block.transcript}
      set={set}
    />
  </div>
)
