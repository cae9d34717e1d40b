import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { foldedName } from '../../naming/index.ts'
import type { CheckContext } from '../context.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'
import { repointed } from './repointed.ts'

export const linkOtherCourse = defineRule({
  id: 'link-other-course',
  group: 'links',
  title: 'Links do not lead into another course',
  why: 'A page copied from last term still leads into last term’s course, where this term’s students may not go.',
  untold:
    'Courses that the template allows. A link whose words are the name of the only item called so is led there by the mend.',
  strength: 'must',
  parameters: z.strictObject({
    allowed: z
      .array(z.string().max(100))
      .max(60)
      .default([])
      .describe('Ids of courses that may be linked, e.g. one for all students'),
  }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { other: 'In “{item}” the link {seen} leads into another course{also}.' },
  check: (context, { allowed }) =>
    pageFaults(context, {
      applies: ({ page }) => page.links.length > 0,
      faults: ({ page }) =>
        page.links.flatMap((link) => {
          const target = context.leadsTo(link.href)
          return target.leads === 'other-course' && !allowed.includes(target.course)
            ? [`“${link.text}” (${link.href})`]
            : []
        }),
      message: 'other',
      expected: 'the copy in this course',
      evidence: 'value',
    }),
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    if (!item || item.html === null) return []
    let html = item.html
    for (const link of context.pageOf(item)?.links ?? []) {
      if (context.leadsTo(link.href).leads !== 'other-course') continue
      const own = namesake(context, link.text)
      html = (own === null ? null : repointed(html, link.href, `item:${own}`)) ?? html
    }
    return html === item.html ? [] : [{ change: 'set-item', id: item.id, fields: { html } }]
  },
})

/** The one item of this course that carries the words of a link as its name. */
const namesake = (context: CheckContext, text: string): string | null => {
  const folded = foldedName(text)
  const named = context.placedItems.filter(({ item }) => foldedName(item.name) === folded)
  return named.length === 1 ? (named[0]?.item.id ?? null) : null
}
