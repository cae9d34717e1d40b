import { z } from 'zod'
import { foldedName } from '../../naming/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

export const linkTextVague = defineRule({
  id: 'link-text-vague',
  group: 'access',
  title: 'Links say where they lead',
  why: 'In a list of links “click here” stands five times, and nobody knows which is which.',
  wcag: ['2.4.4'],
  untold:
    'The same link text for different places, and words of other languages than the listed phrases.',
  strength: 'should',
  parameters: z.strictObject({
    phrases: z
      .array(z.string().min(2).max(60))
      .max(60)
      .default([
        'click here',
        'click',
        'here',
        'this',
        'this link',
        'link',
        'read more',
        'more',
        'more info',
        'learn more',
        'go',
        'see here',
        'page',
        'website',
      ]),
  }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { vague: 'In “{item}” a link is called {seen}{also}.' },
  check: (context, { phrases }) => {
    const vague = new Set(phrases.map((phrase) => bare(phrase)))
    return pageFaults(context, {
      applies: ({ page }) => page.links.length > 0,
      faults: ({ page }) =>
        page.links.flatMap((link) =>
          link.text === ''
            ? [`nothing (it leads to ${link.href})`]
            : vague.has(bare(link.text))
              ? [`“${link.text}”`]
              : [],
        ),
      message: 'vague',
      expected: 'the name of what it leads to',
    })
  },
})

const bare = (text: string): string =>
  foldedName(text)
    .replace(/[^\p{L}\p{N} ]/gu, '')
    .trim()
