import { z } from 'zod'
import { contrastOf, oncePerPage } from '../../page/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const faultsIn = oncePerPage((page) =>
  page.coloured.flatMap(({ text, look }) => {
    const contrast = contrastOf(look)
    // Cut, not rounded: 4.499 does not meet 4.5.
    return contrast && contrast.ratio < contrast.needed
      ? [
          `“${text.slice(0, 60)}” at ${(Math.floor(contrast.ratio * 100) / 100).toFixed(2)} to 1 where ${contrast.needed} is needed`,
        ]
      : []
  }),
)

export const contrastInline = defineRule({
  id: 'contrast-inline',
  group: 'access',
  title: 'Coloured text can be read',
  why: 'Yellow on white, or grey on grey, is lost on tired eyes, poor screens and in sunlight (WCAG 2.2, 1.4.3 Contrast).',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { contrast: 'In “{item}” {seen} is hard to read{also}.' },
  check: (context) =>
    pageFaults(context, {
      applies: ({ page }) => page.coloured.length > 0,
      faults: ({ page }) => faultsIn(page),
      message: 'contrast',
      expected: '4.5 to 1, or 3 to 1 for large text',
    }),
  examples: {
    passes: [
      {
        title: 'dark red on white',
        change: ({ item }) =>
          void (item('week-overview', 3).html +=
            '<p style="color:#8b0000">Bring your own lifejacket.</p>'),
      },
      {
        title: 'grey, but large',
        change: ({ item }) =>
          void (item('week-overview', 3).html +=
            '<p style="color:#949494;font-size:24px">Tides</p>'),
      },
    ],
    fails: [
      {
        title: 'yellow on white',
        change: ({ item }) =>
          void (item('week-overview', 3).html +=
            '<p><span style="color: yellow">Read this first</span></p>'),
        evidence: '“Read this first” at 1.07 to 1 where 4.5 is needed',
      },
      {
        title: 'grey on a pale ground',
        change: ({ item }) =>
          void (item('week-overview', 2).html +=
            '<div style="background:#eee"><p style="color:#888">Small print</p></div>'),
        evidence: '“Small print” at 3.05 to 1 where 4.5 is needed',
      },
    ],
  },
})
