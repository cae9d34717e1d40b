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
  why: 'Yellow on white, or grey on grey, is lost on tired eyes, poor screens and in sunlight.',
  wcag: ['1.4.3'],
  untold:
    'Colours that come from the platform’s own style: only what a page sets itself is known. Text over a picture is not measured.',
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
})
