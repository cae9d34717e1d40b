import { z } from 'zod'
import { oncePerPage, wholeText } from '../../page/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const address = /\b(?:https?:\/\/|www\.)[^\s<>"']{3,300}/i

const faultsIn = oncePerPage((page) =>
  address.test(wholeText(page))
    ? page.paragraphs.flatMap(({ text }) => address.exec(text)?.[0] ?? [])
    : [],
)

export const linkBareAddress = defineRule({
  id: 'link-bare-address',
  group: 'links',
  title: 'Links have names, not bare addresses',
  why: 'A screen reader spells out every character of the address, and a bare one often cannot be pressed at all.',
  untold: 'Addresses without https:// or www.: they may be words.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { bare: '“{item}” shows a bare address: {seen}{also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.paragraphs.length > 0,
      faults: ({ page }) => faultsIn(page),
      message: 'bare',
      expected: 'a link named for what it leads to',
      evidence: 'value',
    }),
})
