import { z } from 'zod'
import { type Change, isShown } from '../../course/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const staffPartVisible = defineRule({
  id: 'staff-part-visible',
  group: 'visibility',
  title: 'Students cannot see what is for staff',
  why: 'Notes to the instructor, keys and marking guides in students’ hands cannot be taken back.',
  untold:
    'Pages that the instructor wrote for staff: only parts of the template are known to be for them.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 1,
  messages: {
    visible: 'Students can see “{name}” in {module}. It is written for staff.',
    open: '“{name}” is published in {module}; students will see it once the course opens. It is written for staff.',
  },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.audience !== 'staff' || part.kind === 'module') continue
      const subject = aboutPart(part)
      const there = context.itemFor(part)
      if (!there) yield { subject, outcome: 'absent' }
      else if (!isShown(there.item) || (there.module && !context.moduleShown(there.module)))
        yield { subject, outcome: 'passed' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: context.studentsReach(there) ? 'visible' : 'open',
          values: {
            name: there.item.name,
            module: there.module ? `“${there.module.name}”` : 'the course',
          },
          evidence: [{ kind: 'words', text: there.item.name }],
          expected: 'for staff only',
          itemId: there.item.id,
        }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    return there
      ? [{ change: 'set-item', id: there.item.id, fields: { published: false, staffOnly: true } }]
      : []
  },
})
