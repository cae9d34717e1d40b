import { z } from 'zod'
import { oncePerPage } from '../../page/index.ts'
import { remember } from '../../remember/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const bullet = /^(?:[-–—*•·▪●◦]\s|\(?\d{1,2}[.)]\s|\(?[a-z][.)]\s)/
const written = new Set(['p', 'div', 'br'])

/** Where lines in a row look like a list, their first. */
const startsIn = remember(20, (fewest: number) =>
  oncePerPage((page) => {
    const starts: string[] = []
    let run = 0
    page.paragraphs.forEach(({ text, tag }, i) => {
      run = written.has(tag) && bullet.test(text) ? run + 1 : 0
      if (run === fewest) starts.push(page.paragraphs[i - fewest + 1]?.text ?? text)
    })
    return starts
  }),
)

export const listFaked = defineRule({
  id: 'list-faked',
  group: 'access',
  title: 'Lists are lists',
  why: 'Hyphens typed before lines look like a list and are read as one long breath.',
  wcag: ['1.3.1'],
  untold: 'Two lines that begin alike, and lines that are numbered in a table or a list already.',
  strength: 'should',
  parameters: z.strictObject({
    fewest: z.number().int().min(2).max(20).default(3).describe('Lines in a row that make a list'),
  }),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { faked: 'In “{item}” lines are made to look like a list, from “{seen}” on{also}.' },
  check: (context, { fewest }) =>
    pageFaults(context, {
      applies: ({ page }) => page.paragraphs.length > 0,
      faults: ({ page }) => startsIn(fewest)(page),
      message: 'faked',
      expected: 'a bulleted or numbered list',
    }),
})
