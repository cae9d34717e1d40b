import { HeadingField, type BlockEditing } from './editing.tsx'

export const ScheduleEditor = ({ block, set }: BlockEditing<'schedule'>) => (
  <>
    <HeadingField label={block.label} set={set} />
    <p className="text-ink-2">
      Made from the calendar: every week or unit with its dates, topic and what is due.
    </p>
  </>
)
