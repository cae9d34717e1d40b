import { z } from 'zod'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

export const linkToStaffPart = defineRule({
  id: 'link-to-staff-part',
  group: 'links',
  title: 'No page for students links to what is for staff',
  why: 'Students are led to notes, keys or drafts that are not for them, or to a door that stays shut.',
  untold: 'Links on pages that are for staff themselves.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { staff: '“{item}” links to {seen}, which is for staff{also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.links.length > 0,
      faults: ({ page }) =>
        page.links.flatMap((link) => {
          const target = context.leadsTo(link.href)
          if (target.leads !== 'item') return []
          const part = context.partOf(target.id)
          const module = context.placed(target.id)?.module
          const staff =
            part?.audience === 'staff' ||
            (module ? context.partOf(module.id)?.audience === 'staff' : false)
          return staff ? [`“${context.placed(target.id)?.item.name ?? link.text}”`] : []
        }),
      message: 'staff',
      expected: 'no link',
    }),
})
