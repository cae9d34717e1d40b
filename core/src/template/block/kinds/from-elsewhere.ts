import { z } from 'zod'
import { frameOf } from '../../../allow/index.ts'
import { Address } from '../../../document/index.ts'
import { escapeHtml, minuteWords } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { proposable } from '../left.ts'
import { fresh, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const fromElsewhere = defineBlock(
  'from-elsewhere',
  z.strictObject({
    ...shared,
    ...proposable,
    kind: z.literal('from-elsewhere'),
    title: line,
    url: Address,
    shape: z.enum(['wide', 'square', 'tall']).optional().describe('wide without it'),
    minutes: z.number().min(0).max(600).optional(),
    about: line.optional().describe('What it is, and what one does with it'),
  }),
  {
    title: 'Content from elsewhere',
    group: 'written',
    isFixed: true,
    htmlFields: [],
    wordFields: ['title', 'about'],
    empty: (key) => ({ ...fresh('from-elsewhere', key), title: 'Title of what is shown', url: '' }),
    html: (block, writing) => {
      const name = writing.line(block.title)
      const href = escapeHtml(block.url)
      const told = minuteWords(block.minutes)
      return asWritten(
        `<h3>${name}</h3>${block.about ? `<p>${writing.line(block.about)}</p>` : ''}${frameOf(href, name, block.shape ?? 'wide')}<p><a href="${href}">${name}</a>${told.length > 0 ? ` (${told.join(', ')})` : ''}</p>`,
      )
    },
    words: ({ title, about }) => [{ text: title }, ...(about ? [{ text: about }] : [])],
  },
)
