import { z } from 'zod'
import { oncePerPage } from '../../page/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const faultsIn = oncePerPage((page) =>
  page.headings.flatMap((heading, i) => {
    const before = page.headings[i - 1]
    return before && heading.level > before.level + 1
      ? [`“${heading.text}” (level ${heading.level} after level ${before.level})`]
      : []
  }),
)

export const headingSkip = defineRule({
  id: 'heading-skip',
  group: 'access',
  title: 'Headings descend level by level',
  why: 'People who move by headings lose their place where a level is left out, mostly chosen for its size.',
  wcag: ['1.3.1'],
  untold:
    'The level of the first heading: it follows the page’s own title, whose level is the platform’s affair.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { skip: 'In “{item}” the heading {seen} leaves out a level{also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.headings.length > 1,
      // The first heading follows the page's own title, whose level is the platform's affair.
      faults: ({ page }) => faultsIn(page),
      message: 'skip',
      expected: 'the next level below the heading before it',
    }),
})
