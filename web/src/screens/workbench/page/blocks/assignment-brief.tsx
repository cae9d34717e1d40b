import { WrittenField, type BlockEditing } from './editing.tsx'

export const AssignmentBriefEditor = (of: BlockEditing<'assignment-brief'>) => {
  const { block } = of
  return (
    <div className="grid gap-2">
      <WrittenField spots field="why" label="Why you do it" html={block.why} of={of} />
      <WrittenField spots field="whatToDo" label="What to do" html={block.whatToDo} of={of} />
      <WrittenField spots field="handIn" label="What to hand in" html={block.handIn} of={of} />
      <WrittenField spots field="judged" label="How it is judged" html={block.judged} of={of} />
    </div>
  )
}
