import { HeadingField, type BlockEditing } from './editing.tsx'

export const WorkListEditor = ({ block, set }: BlockEditing<'work-list'>) => (
  <>
    <HeadingField label={block.label} set={set} />
    <p className="text-ink-2">Made from what its module holds, with links.</p>
  </>
)
