import { z } from 'zod'
import { Html } from '../../words.ts'
import { defineBlock } from '../kind.ts'
import { fresh, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const guidanceNote = defineBlock(
  'guidance-note',
  z.strictObject({ ...shared, kind: z.literal('guidance-note'), html: Html }),
  {
    title: 'Guidance note',
    group: 'left',
    isFixed: false,
    htmlFields: ['html'],
    wordFields: ['html'],
    empty: (key) => ({ ...fresh('guidance-note', key), html: '<p>Advice to the instructor.</p>' }),
    html: (block, writing) =>
      asWritten(`<p><strong>Note to the instructor.</strong></p>${writing.html(block.html)}`),
    words: (block) => [{ html: block.html }],
  },
)
