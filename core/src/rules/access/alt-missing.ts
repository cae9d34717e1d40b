import { z } from 'zod'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

export const altMissing = defineRule({
  id: 'alt-missing',
  group: 'access',
  title: 'Images have alternative text',
  why: 'Who does not see the image hears a file name or nothing at all.',
  wcag: ['1.1.1'],
  untold:
    'An image that is marked as decoration, or that a caption names. Whether the words are right is for people to say.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { missing: 'In “{item}” the image {seen}{also} has no alternative text.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.images.length > 0,
      faults: ({ page }) =>
        page.images
          .filter((image) => image.alternativeText === null && !image.named)
          .map((image) => image.source),
      message: 'missing',
      expected: 'words for the image, or alt="" where it is decoration',
      evidence: 'value',
    }),
})
