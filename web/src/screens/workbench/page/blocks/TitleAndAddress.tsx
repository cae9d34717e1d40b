import type { Template } from '@wickerframe/core'
import { TextLine } from '../../../../controls/typed.tsx'
import { HowShown } from './HowShown.tsx'

/** What something of another place is called, where it is, and how students come to it. */
export const TitleAndAddress = ({
  block,
  template,
  set,
}: {
  block: { title: string; url: string }
  template: Template
  set: (field: string, was: unknown, value: unknown) => void
}) => (
  <>
    <TextLine
      label="Title"
      value={block.title}
      onDone={(now) => now.trim() !== '' && set('title', block.title, now)}
    />
    <TextLine label="Address" value={block.url} onDone={(now) => set('url', block.url, now)} />
    <HowShown url={block.url} template={template} />
  </>
)
