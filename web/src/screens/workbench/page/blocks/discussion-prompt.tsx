import { NumberLine } from '../../../../controls/typed.tsx'
import { LineField, WrittenField, type BlockEditing } from './editing.tsx'

export const DiscussionPromptEditor = (of: BlockEditing<'discussion-prompt'>) => {
  const { block, set } = of
  return (
    <div className="grid gap-2">
      <WrittenField spots field="question" label="The question" html={block.question} of={of} />
      <div className="flex flex-wrap items-end gap-3">
        <LineField
          field="firstBy"
          label="Write first by"
          value={block.firstBy}
          hint="fields may stand here, e.g. {due, EEEE}"
          set={set}
        />
        <NumberLine
          label="Classmates to answer"
          most={20}
          value={block.answers}
          onDone={(value) => set('answers', block.answers, value ?? 0)}
        />
        <LineField field="answersBy" label="by" value={block.answersBy} set={set} />
      </div>
    </div>
  )
}
