import { z } from 'zod'
import { Html } from '../../words.ts'
import { defineBlock } from '../kind.ts'
import { proposable } from '../left.ts'
import { fresh, shared } from '../shared.ts'
import { box } from '../html.ts'
import { asWritten } from '../writing.ts'

export const inShort = defineBlock(
  'in-short',
  z.strictObject({ ...shared, ...proposable, kind: z.literal('in-short'), html: Html }),
  {
    title: 'In short',
    group: 'written',
    isFixed: true,
    htmlFields: ['html'],
    wordFields: ['html'],
    empty: (key) => ({ ...fresh('in-short', key), html: '<p>The page in two sentences.</p>' }),
    html: (block, writing) =>
      asWritten(
        box('note', `<p><strong>In short.</strong></p>${writing.html(block.html)}`, writing),
      ),
    words: (block) => [{ html: block.html }],
  },
)
