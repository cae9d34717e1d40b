import { itemsIn, modulesIn } from '../../course/index.ts'
import { z } from 'zod'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const moduleEmpty = defineRule({
  id: 'module-empty',
  group: 'structure',
  title: 'No module stands empty',
  why: 'Students open a week and find a title and nothing else.',
  untold: 'Modules for staff, weeks in a break, and modules that hold other modules.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  onlyInCourse: true,
  effortMinutes: 15,
  messages: { empty: '“{module}” holds nothing that students can open.' },
  *check(context): Generator<Verdict> {
    for (const module of context.modules) {
      const part = context.partOf(module.id)
      const subject = aboutFound(context, module)
      if (part?.audience === 'staff' || context.isForBreak(module) || modulesIn(module).length > 0)
        continue
      const need = part ? context.needOf(part) : context.openingDay
      if (itemsIn(module).some((item) => item.kind !== 'heading')) {
        if (part) yield { subject, outcome: 'passed' }
      } else if (!context.moduleOpen(module)) yield { subject, outcome: 'inapplicable' }
      else if (!context.reached(need)) yield { subject, outcome: 'not-due-yet', dueOn: need }
      else
        yield {
          subject,
          outcome: 'failed',
          message: 'empty',
          values: { module: module.name },
          evidence: [{ kind: 'count', text: '0 items' }],
          expected: 'its items, or hidden',
          itemId: module.id,
          together: part ? part.key : 'own-modules',
        }
    }
  },
})
