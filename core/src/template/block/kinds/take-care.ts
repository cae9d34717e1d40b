import { z } from 'zod'
import { Html } from '../../words.ts'
import { defineBlock } from '../kind.ts'
import { proposable } from '../left.ts'
import { fresh, shared } from '../shared.ts'
import { box } from '../html.ts'
import { asWritten } from '../writing.ts'

export const takeCare = defineBlock(
  'take-care',
  z.strictObject({ ...shared, ...proposable, kind: z.literal('take-care'), html: Html }),
  {
    title: 'Take care',
    group: 'written',
    isFixed: true,
    htmlFields: ['html'],
    wordFields: ['html'],
    empty: (key) => ({
      ...fresh('take-care', key),
      html: '<p>What goes wrong, and how not to let it.</p>',
    }),
    html: (block, writing) =>
      asWritten(
        box('note', `<p><strong>Take care.</strong></p>${writing.html(block.html)}`, writing),
      ),
    words: (block) => [{ html: block.html }],
  },
)
