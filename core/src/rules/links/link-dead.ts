import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'
import { addressByName, relinked } from './relinked.ts'

export const linkDead = defineRule({
  id: 'link-dead',
  group: 'links',
  title: 'Links inside the course lead somewhere',
  why: 'A student follows a link to what was removed and reads “not found” the night before work is due.',
  untold:
    'Links to other places on the web: nothing is fetched. A link whose words are the name of the only item called so is led there by the mend.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { dead: 'In “{item}” the link {seen} leads to nothing in this course{also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.links.length > 0,
      faults: ({ page }) =>
        page.links
          .filter(
            (link) =>
              link.href.trim() === '' ||
              link.href.trim() === '#' ||
              context.leadsTo(link.href).leads === 'nowhere',
          )
          .map((link) => `“${link.text}” (${link.href || 'no address'})`),
      message: 'dead',
      expected: 'a page or item of this course',
      evidence: 'value',
    }),
  mend(verdict, context): Change[] {
    const item = context.itemAt(verdict.itemId)
    const change = item ? relinked(context, item, addressByName(context)) : null
    return change ? [change] : []
  },
})
