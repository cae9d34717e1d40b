import { HeadingField, LinesField, type BlockEditing } from './editing.tsx'
import { PortraitField } from './PortraitField.tsx'

export const ContactCardEditor = ({
  block,
  template,
  sources,
  set,
}: BlockEditing<'contact-card'>) => (
  <div className="grid gap-2">
    <HeadingField label={block.label} set={set} />
    <p className="text-ink-2">
      Made from the roster: the instructors with their e-mail addresses, and below them these lines.
    </p>
    <LinesField
      label="Lines below, one for each thing to say"
      lines={block.lines ?? []}
      onDone={(lines) => set('lines', block.lines, lines.length > 0 ? lines : null)}
    />
    <PortraitField portrait={block.portrait} of={{ template, sources }} set={set} />
  </div>
)
