import { HeadingField, type BlockEditing } from './editing.tsx'

export const OutcomeMapEditor = ({ block, set }: BlockEditing<'outcome-map'>) => (
  <>
    <HeadingField label={block.label} set={set} />
    <p className="text-ink-2">
      Made from the outcomes: each with the modules in which something serves or assesses it.
    </p>
  </>
)
