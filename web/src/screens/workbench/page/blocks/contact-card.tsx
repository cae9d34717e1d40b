import { HeadingField, type BlockEditing } from './editing.tsx'

export const ContactCardEditor = ({ block, set }: BlockEditing<'contact-card'>) => (
  <>
    <HeadingField label={block.label} set={set} />
    <p className="text-ink-2">Made from the roster: the instructors with their e-mail addresses.</p>
  </>
)
