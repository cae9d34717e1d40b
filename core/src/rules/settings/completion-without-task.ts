import { isShown, itemsIn } from '../../course/index.ts'
import { z } from 'zod'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

const tasks = new Set(['discussion', 'assignment', 'assessment', 'tool-link'])

export const completionWithoutTask = defineRule({
  id: 'completion-without-task',
  group: 'settings',
  title: 'Where completion is tracked, there is something to complete',
  why: 'A module without a task counts as done the moment it opens, and students believe they have kept up.',
  untold:
    'Courses that do not track completion, and modules in which the template asks for no task.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 5,
  messages: { nothing: 'Completion is tracked, and “{module}” holds nothing that students do.' },
  *check(context): Generator<Verdict> {
    for (const part of context.parts) {
      if (
        part.kind !== 'module' ||
        part.audience !== 'students' ||
        !part.items.some((item) => tasks.has(item.kind))
      )
        continue
      const subject = aboutPart(part)
      const module = context.moduleFor(part)
      if (!module) yield { subject, outcome: 'absent' }
      else if (context.course.settings?.completionTracked !== true || part.inBreak)
        yield { subject, outcome: 'inapplicable' }
      else if (itemsIn(module).some((item) => isShown(item) && tasks.has(item.kind)))
        yield { subject, outcome: 'passed' }
      else if (!context.reached(context.needOf(part)))
        yield { subject, outcome: 'not-due-yet', dueOn: context.needOf(part) }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'nothing',
          values: { module: module.name },
          evidence: [{ kind: 'count', text: `${itemsIn(module).length} items, no task` }],
          expected: 'a discussion, assignment or assessment',
          itemId: module.id,
        }
    }
  },
})
