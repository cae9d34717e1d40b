import { z } from 'zod'
import { type Change, isShown, itemsIn } from '../../course/index.ts'
import { defineRule, aboutPart, type Verdict } from '../rule.ts'

export const lastInModule = defineRule({
  id: 'last-in-module',
  group: 'structure',
  title: 'What comes last stands last',
  why: 'A checklist in the middle is ticked off before the rest has been seen.',
  untold:
    'Hidden items and copies after it, modules into which several weeks were folded, and units in which each week has its own last part.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { after: '“{name}” is to stand last in “{module}”; after it comes {after}.' },
  *check(context): Generator<Verdict> {
    const copies = new Set(context.pairing.copies.map((copy) => copy.found))
    for (const part of context.parts) {
      if (part.kind === 'module' || part.definition.position !== 'last') continue
      const subject = aboutPart(part)
      const there = context.itemFor(part)
      const module = context.partAt(part.parent)
      const inUnit = (module?.weeks.length ?? 0) > 1 && part.weeks.length <= 1
      if (!there?.module || inUnit || context.sharesModule(module) || context.awaitsUnits(part)) {
        yield { subject, outcome: there ? 'inapplicable' : 'absent' }
        continue
      }
      const { item } = there
      // Parts that come last as well may stand after it, and so may what nobody sees.
      const siblings = itemsIn(there.module)
      const after = siblings
        .slice(siblings.indexOf(item) + 1)
        .filter(
          (item) =>
            isShown(item) &&
            !copies.has(item.id) &&
            context.partOf(item.id)?.definition.position !== 'last',
        )
      if (after.length === 0) yield { subject, outcome: 'passed' }
      else {
        const names = after.map(({ name }) => `“${name}”`).join(', ')
        yield {
          subject,
          outcome: 'failed',
          message: 'after',
          values: { name: item.name, module: there.module.name, after: names },
          evidence: [{ kind: 'words', text: names }],
          expected: 'last in its module',
          itemId: item.id,
        }
      }
    }
  },
  mend(verdict, context): Change[] {
    const there = verdict.subject.about === 'part' ? context.itemFor(verdict.subject.part) : null
    return there?.module
      ? [{ change: 'move-item', id: there.item.id, module: there.module.id, at: null }]
      : []
  },
})
