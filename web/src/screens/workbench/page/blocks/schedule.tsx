import { whatWeDo } from '@wickerframe/core'
import { TextLine } from '../../../../controls/typed.tsx'
import { HeadingField, type BlockEditing } from './editing.tsx'

export const ScheduleEditor = ({ block, set }: BlockEditing<'schedule'>) => (
  <div className="grid gap-2">
    <HeadingField label={block.label} set={set} />
    <p className="text-ink-2">
      Made from the calendar: every week or unit with its dates, topic and what is due.
    </p>
    {block.left?.as === 'asked' && (
      <TextLine
        label="What each row asks, which its column is called as well"
        value={block.prompt ?? whatWeDo}
        onDone={(now) => set('prompt', block.prompt, now.trim() || null)}
      />
    )}
  </div>
)
