import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { foldedName } from '../../naming/index.ts'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

const keyName =
  /\b(?:answer key|answers|solutions?|model answers?|marking key|grading key|sample solution)\b/

export const answerKeyVisible = defineRule({
  id: 'answer-key-visible',
  group: 'visibility',
  title: 'Answers stay shut until the work is due',
  why: 'Students who find the key before the work is due hand in the key.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { open: 'Students can open “{name}” while “{work}” is due only on {due}.' },
  *check(context): Generator<Verdict> {
    for (const placed of context.placedItems) {
      const { item, module } = placed
      if (!keyName.test(foldedName(item.name)) || item.points !== null) continue
      const subject = aboutFound(context, item)
      const due = (module?.items ?? [])
        .flatMap((other) =>
          other !== item && other.dueAt !== null
            ? [{ name: other.name, date: context.dateOf(other.dueAt) }]
            : [],
        )
        .sort((a, b) => (a.date < b.date ? 1 : -1))
      const open = due.find((work) => !context.reached(work.date))
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
  examples: {
    passes: [
      { title: 'no key in the course', change: () => {} },
      {
        title: 'the key of a week that is over',
        change: ({ module, item }) =>
          void module('week', 2).items.push({
            ...item('week-overview', 2),
            id: 'key',
            name: 'Answer key to quiz 2',
            recordedAs: undefined,
          }),
      },
    ],
    fails: [
      {
        title: 'the key of this week',
        change: ({ module, item }) =>
          void module('week', 3).items.push({
            ...item('week-overview', 3),
            id: 'key',
            name: 'Quiz 3 answer key',
            recordedAs: undefined,
          }),
        evidence: 'Quiz 3 answer key',
      },
      {
        title: 'solutions as a file',
        change: ({ module, item }) =>
          void module('week', 4).items.push({
            ...item('week-overview', 4),
            id: 'key',
            kind: 'file',
            html: null,
            name: 'Solutions',
            recordedAs: undefined,
          }),
        evidence: 'Solutions',
      },
    ],
  },
})
