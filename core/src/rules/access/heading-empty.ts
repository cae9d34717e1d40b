import { z } from 'zod'
import { oncePerPage } from '../../page/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const faultsIn = oncePerPage((page) =>
  page.headings.filter((heading) => !heading.named).map((heading) => `level ${heading.level}`),
)

export const headingEmpty = defineRule({
  id: 'heading-empty',
  group: 'access',
  title: 'No heading is empty',
  why: 'A screen reader announces a heading and then nothing; a list of headings has a hole.',
  wcag: ['2.4.6'],
  untold:
    'A heading that holds a described image: it is named. Headings that say too little are not told.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { empty: '“{item}” has an empty heading ({seen}){also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.headings.length > 0,
      faults: ({ page }) => faultsIn(page),
      message: 'empty',
      expected: 'words, or no heading',
      evidence: 'value',
    }),
})
