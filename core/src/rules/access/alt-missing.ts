import { z } from 'zod'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

export const altMissing = defineRule({
  id: 'alt-missing',
  group: 'access',
  title: 'Images have alternative text',
  why: 'Who does not see the image hears a file name or nothing at all (WCAG 2.2, 1.1.1 Non-text content).',
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
  examples: {
    passes: [
      {
        title: 'an image with words',
        change: ({ item }) =>
          void (item('week-overview', 3).html +=
            '<img src="tide.png" alt="The tide tables for Kestrel Sound">'),
      },
      {
        title: 'decoration, marked as such',
        change: ({ item }) =>
          void (item('week-overview', 3).html +=
            '<img src="line.png" alt=""><img src="wave.png" role="presentation">'),
      },
    ],
    fails: [
      {
        title: 'no alternative text',
        change: ({ item }) => void (item('week-overview', 3).html += '<p><img src="tide.png"></p>'),
        evidence: 'tide.png',
      },
      {
        title: 'on a page of the instructor’s own',
        change: ({ module, item }) =>
          void module('week', 2).items.push({
            ...item('week-overview', 2),
            id: 'own',
            name: 'Knots',
            html: '<img src="bowline.jpg">',
            recordedAs: undefined,
          }),
        evidence: 'bowline.jpg',
      },
    ],
  },
})
