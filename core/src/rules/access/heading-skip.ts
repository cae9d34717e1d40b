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
  why: 'People who move by headings lose their place where a level is left out, mostly chosen for its size (WCAG 2.2, 1.3.1 Info and relationships).',
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
  examples: {
    passes: [
      {
        title: 'level by level, and back up at once',
        change: ({ item }) =>
          void (item('week-overview', 3).html =
            '<h2>Tides</h2><h3>Springs</h3><h4>Why</h4><h2>Streams</h2>'),
      },
      {
        title: 'a page that begins at level 3',
        change: ({ item }) =>
          void (item('week-overview', 3).html = '<h3>Tides</h3><h4>Springs</h4>'),
      },
    ],
    fails: [
      {
        title: 'from 2 to 4',
        change: ({ item }) =>
          void (item('week-overview', 3).html = '<h2>Tides</h2><h4>Springs</h4>'),
        evidence: '“Springs” (level 4 after level 2)',
      },
      {
        title: 'from 3 to 6, for its size',
        change: ({ item }) =>
          void (item('week-overview', 2).html += '<h3>Marks</h3><h6>Small print</h6>'),
        evidence: '“Small print” (level 6 after level 3)',
      },
    ],
  },
})
