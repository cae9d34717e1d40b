import { z } from 'zod'
import { isShown } from '../../course/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const publishedInHiddenModule = defineRule({
  id: 'published-in-hidden-module',
  group: 'visibility',
  title: 'Nothing graded is published inside a hidden module',
  why: 'The instructor believes it is open; students cannot see it, though its due date runs.',
  untold: 'Work without a due date.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { hidden: '“{name}” is published and due {due}, but “{module}” is hidden.' },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      const there = part.kind === 'module' ? null : context.itemFor(part)
      if (!there?.module || there.item.dueAt === null) continue
      const due = context.dateOf(there.item.dueAt)
      const subject = aboutPart(part)
      if (!isShown(there.item) || context.moduleShown(there.module))
        yield { subject, outcome: 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'hidden',
          values: { name: there.item.name, due, module: there.module.name },
          evidence: [{ kind: 'value', text: `${there.module.name} is hidden` }],
          expected: 'both open, or both hidden',
          itemId: there.item.id,
        }
    }
  },
})
