import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'
import { isAnswerKey, workNotDue } from './keptFromStudents.ts'

export const answerKeyVisible = defineRule({
  id: 'answer-key-visible',
  group: 'visibility',
  title: 'Answers stay shut until the work is due',
  why: 'Students who find the key before the work is due hand in the key.',
  untold:
    'Answers that do not say so in their names, answers to questions that students ask, and answers to work that is due no more.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { open: 'Students can open “{name}” while “{work}” is due only on {due}.' },
  *check(context): Generator<Verdict> {
    for (const placed of context.placedItems) {
      const { item } = placed
      if (!isAnswerKey(item)) continue
      const subject = aboutFound(context, item)
      const open = workNotDue(placed, context)
      if (!open || !context.studentsReach(placed)) yield { subject, outcome: 'passed' }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'open',
          values: { name: item.name, work: open.name, due: open.date },
          evidence: [{ kind: 'words', text: item.name }],
          expected: `hidden until ${open.date}`,
          itemId: item.id,
        }
    }
  },
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    return item ? [{ change: 'set-item', id: item.id, fields: { published: false } }] : []
  },
})
