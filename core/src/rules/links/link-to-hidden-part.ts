import { z } from 'zod'
import { isShown } from '../../course/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

export const linkToHiddenPart = defineRule({
  id: 'link-to-hidden-part',
  group: 'links',
  title: 'Links lead to what students can open',
  why: 'A student follows the link and is told that the page does not exist or may not be seen.',
  untold:
    'What opens later by its date, parts that are not needed yet, and what is for staff, which has a rule of its own. Nothing is opened by the mend of another page: a hidden part that a needed page links to stays hidden and is told here.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { hidden: '“{item}” links to {seen}, which students cannot open{also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page, placed }) => page.links.length > 0 && context.studentsReach(placed),
      faults: ({ page }) =>
        page.links.flatMap((link) => {
          const target = context.leadsTo(link.href)
          const there = target.leads === 'item' ? context.placed(target.id) : null
          if (!there || context.studentsReach(there)) return []
          const part = context.partOf(there.item.id)
          // Another rule tells of staff parts; what opens later may be announced, what stands off the menu is reached.
          if (part && (part.audience !== 'students' || !context.reached(context.needOf(part))))
            return []
          const opens = there.item.opensAt ?? there.module?.opensAt ?? null
          return isShown(there.item) &&
            (!there.module || context.moduleShown(there.module)) &&
            opens !== null
            ? []
            : [`“${there.item.name}”`]
        }),
      message: 'hidden',
      expected: 'an item that students can open',
    }),
})
