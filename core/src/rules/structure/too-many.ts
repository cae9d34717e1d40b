import { isShown, itemsIn } from '../../course/index.ts'
import { z } from 'zod'
import { aboutFound, defineRule, type Verdict } from '../rule.ts'

export const tooMany = defineRule({
  id: 'too-many',
  group: 'structure',
  title: 'A module holds no more than students can take in',
  why: 'In a week of forty items nobody can tell what has to be done.',
  untold:
    'Headings, hidden items, modules for the whole course, and as many as the template itself puts there.',
  strength: 'should',
  parameters: z.strictObject({
    mostItems: z.number().int().min(2).max(500).default(30).describe('Items in one module'),
  }),
  mender: 'instructor',
  effortMinutes: 15,
  messages: { items: '“{module}” holds {seen items}; at most {most} are wanted.' },
  *check(context, { mostItems }): Generator<Verdict> {
    for (const module of context.modules) {
      const part = context.partOf(module.id)
      if (part?.audience === 'staff' || part?.definition.span === 'course') continue
      const subject = aboutFound(context, module)
      const open = itemsIn(module).filter((item) => isShown(item) && item.kind !== 'heading')
      // What the template itself puts there is meant, and a unit holds several weeks.
      const most = Math.max(
        mostItems * Math.max(1, part?.weeks.length ?? 1),
        part?.items.length ?? 0,
      )
      if (open.length <= most) {
        if (part) yield { subject, outcome: 'passed' }
      } else
        yield {
          subject,
          outcome: 'failed',
          message: 'items',
          values: { module: module.name, seen: String(open.length), most: String(most) },
          evidence: [{ kind: 'count', text: `${open.length} items` }],
          expected: `at most ${most} items`,
          itemId: module.id,
          together: 'full-modules',
        }
    }
  },
})
