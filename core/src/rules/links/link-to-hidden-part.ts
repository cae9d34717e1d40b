import { z } from 'zod'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

export const linkToHiddenPart = defineRule({
  id: 'link-to-hidden-part',
  group: 'links',
  title: 'Links lead to what students can open',
  why: 'A student follows the link and is told that the page does not exist or may not be seen.',
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
          return there.item.published && (there.module?.published ?? true) && opens !== null
            ? []
            : [`“${there.item.name}”`]
        }),
      message: 'hidden',
      expected: 'an item that students can open',
    }),
  examples: {
    passes: [
      { title: 'links as deployed', change: () => {} },
      {
        title: 'a link to a week that is not needed yet',
        change: ({ item, module }) => {
          module('week', 7).published = false
          item('week-overview', 3).html +=
            `<a href="${item('week-overview', 7).url}">Later: week 7</a>`
        },
      },
    ],
    fails: [
      {
        title: 'a page of this week that is hidden',
        change: ({ item }) => {
          item('checklist', 3).published = false
          item('welcome').html += `<a href="${item('checklist', 3).url}">Checklist</a>`
        },
        evidence: '“Week 3 checklist”',
      },
      {
        title: 'a page of the instructor’s own that is hidden',
        change: ({ module, item }) => {
          module('week', 2).items.push({
            ...item('week-overview', 2),
            id: 'own',
            url: '/courses/example/own',
            name: 'Knots',
            published: false,
            recordedAs: undefined,
          })
          item('week-overview', 2).html += '<a href="/courses/example/own">Knots</a>'
        },
        evidence: '“Knots”',
      },
    ],
  },
})
