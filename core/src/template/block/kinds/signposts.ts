import { z } from 'zod'
import { Line } from '../../../document/index.ts'
import { Key } from '../../words.ts'
import { escapeHtml, heading, list } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, label, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const signposts = defineBlock(
  'signposts',
  z.strictObject({
    ...shared,
    kind: z.literal('signposts'),
    label: label.optional(),
    links: z
      .array(z.strictObject({ text: Line(200), to: Key.describe('Key of the part it leads to') }))
      .min(1)
      .max(30),
  }),
  {
    title: 'Signposts',
    group: 'written',
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key, { parts: [first] }) =>
      first ? { ...fresh('signposts', key), links: [{ text: 'Begin here', to: first.key }] } : null,
    html: (block, writing) => {
      const links = block.links.flatMap((link) => {
        const target = writing.linkTo(link.to)
        return target ? [`<a href="${escapeHtml(target.href)}">${writing.line(link.text)}</a>`] : []
      })
      return asWritten((block.label ? heading(block.label) : '') + list('ul', links))
    },
    words: () => null,
  },
)
