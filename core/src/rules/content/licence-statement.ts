import { z } from 'zod'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const statement =
  /\b(?:licen[cs]ed?|creative commons|cc[ -](?:by|0)|public domain|with permission|used by permission|copyright|©|(?:photo|image|picture|drawing|source|credit)s?(?: by|:))/i

export const licenceStatement = defineRule({
  id: 'licence-statement',
  group: 'page content',
  title: 'Images from elsewhere say by what right they are shown',
  why: 'An image taken from the web without a word of its licence may cost the college a claim.',
  untold:
    'Images of this platform and of the listed hosts, and whether what is said of a licence is true.',
  strength: 'should',
  parameters: z.strictObject({
    own: z
      .array(z.string().max(200))
      .max(100)
      .default([])
      .describe('Hosts whose images are the college’s own'),
  }),
  mender: 'instructor',
  effortMinutes: 5,
  messages: { licence: '“{item}” shows an image from {seen} without a word of its licence{also}.' },
  check: (context, { own }) =>
    pageFaults(context, {
      applies: ({ page }) => page.images.some((image) => /^https?:/i.test(image.source)),
      faults: ({ page }) =>
        page.images.flatMap((image) => {
          const target = context.leadsTo(image.source)
          if (
            target.leads !== 'outside' ||
            own.some((host) => target.host === host || target.host.endsWith(`.${host}`))
          )
            return []
          const near = [image.paragraph - 1, image.paragraph, image.paragraph + 1].map(
            (i) => page.paragraphs[i]?.text ?? '',
          )
          return [...near, image.alternativeText ?? ''].some((text) => statement.test(text))
            ? []
            : [target.host]
        }),
      message: 'licence',
      expected: 'who made it, and under which licence',
      evidence: 'value',
    }),
})
