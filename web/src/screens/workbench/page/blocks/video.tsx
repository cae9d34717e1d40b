import { NumberLine, TextLine, Tick } from '../../../../controls/typed.tsx'
import { HowShown } from './HowShown.tsx'
import { LineField, type BlockEditing } from './editing.tsx'

export const VideoEditor = ({ block, template, set }: BlockEditing<'video'>) => (
  <div className="grid gap-2">
    <TextLine
      label="Title"
      value={block.title}
      onDone={(now) => now.trim() !== '' && set('title', block.title, now)}
    />
    <TextLine label="Address" value={block.url} onDone={(now) => set('url', block.url, now)} />
    <HowShown url={block.url} template={template} />
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
