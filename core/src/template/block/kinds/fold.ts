import { z } from 'zod'
import { Html } from '../../words.ts'
import { defineBlock } from '../kind.ts'
import { proposable } from '../left.ts'
import { fresh, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const fold = defineBlock(
  'fold',
  z.strictObject({
    ...shared,
    ...proposable,
    kind: z.literal('fold'),
    summary: line.describe('What is read while it is folded'),
    html: Html,
  }),
  {
    title: 'Passage that folds',
    group: 'written',
    isFixed: true,
    htmlFields: ['html'],
    wordFields: ['summary', 'html'],
    empty: (key) => ({
      ...fresh('fold', key),
      summary: 'For those who want to know more',
      html: '<p>What is read when it is opened.</p>',
    }),
    html: (block, writing) =>
      asWritten(
        `<details><summary>${writing.line(block.summary)}</summary>${writing.html(block.html)}</details>`,
      ),
    words: (block) => [{ text: block.summary }, { html: block.html }],
  },
)
