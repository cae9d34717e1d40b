import { z } from 'zod'
import { Format } from '../../words.ts'
import { escapeHtml } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const title = defineBlock(
  'title',
  z.strictObject({ ...shared, kind: z.literal('title'), text: Format }),
  {
    title: 'Title',
    group: 'written',
    isFixed: false,
    shows: () => ['course-title'],
    htmlFields: [],
    wordFields: ['text'],
    empty: (key) => ({ ...fresh('title', key), text: '{code} {title}' }),
    html: (block, writing) => asWritten(`<h2>${escapeHtml(writing.name(block.text))}</h2>`),
    words: (block) => [{ text: block.text }],
  },
)
