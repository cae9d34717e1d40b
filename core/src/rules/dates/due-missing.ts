import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { isHeld, itemKinds, type ItemKind } from '../../template/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const dueMissing = defineRule({
  id: 'due-missing',
  group: 'dates',
  title: 'Work to hand in has a due date',
  why: 'Without a due date the work never reaches students’ calendars.',
  untold:
    'Work that the instructor added: whether it has a date is theirs to decide. The list of work still asks for its line.',
  strength: 'must',
  parameters: z.strictObject({
    kinds: z.array(z.enum(itemKinds)).default(['assignment', 'assessment'] satisfies ItemKind[]),
  }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: {
    none: '“{name}” has no due date, so it reaches nobody’s calendar.',
    undated: '“{name}” has no date, so it reaches nobody’s calendar.',
  },
  *check(context, { kinds }): Generator<Verdict> {
    for (const part of context.parts) {
      if (part.kind === 'module' || (part.dueAt === null && !kinds.includes(part.kind))) continue
      const subject = aboutPart(part)
      const there = context.itemFor(part)
      if (!there) yield { subject, outcome: 'absent' }
      else if (there.item.dueAt !== null) yield { subject, outcome: 'passed' }
      // What the template gives a due date, of whatever kind, needs one.
      else if (
        !kinds.includes(there.item.kind) &&
        !(part.dueAt !== null && there.item.kind === part.kind)
      )
        yield { subject, outcome: 'inapplicable' }
      else if (!context.reached(context.needOf(part)))
        yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          subject,
          outcome: 'failed',
          message: isHeld(there.item) ? 'undated' : 'none',
          values: { name: there.item.name },
          evidence: [{ kind: 'value', text: 'no due date' }],
          expected: part.dueAt ?? 'a due date in its week',
          itemId: there.item.id,
        }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    return there?.part.dueAt
      ? [{ change: 'set-item', id: there.item.id, fields: { dueAt: there.part.dueAt } }]
      : []
  },
})
