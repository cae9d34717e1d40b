import { z } from 'zod'
import { Html } from '../../words.ts'
import { defineBlock } from '../kind.ts'
import { proposable } from '../left.ts'
import { fresh, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const fixedText = defineBlock(
  'fixed-text',
  z.strictObject({ ...shared, ...proposable, kind: z.literal('fixed-text'), html: Html }),
  {
    title: 'Fixed text',
    group: 'written',
    isFixed: true,
    htmlFields: ['html'],
    wordFields: ['html'],
    empty: (key) => ({ ...fresh('fixed-text', key), html: '<p>New fixed text.</p>' }),
    html: (block, writing) => asWritten(writing.html(block.html)),
    words: (block) => [{ html: block.html }],
  },
)
