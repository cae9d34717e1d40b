import { z } from 'zod'
import { anchor, escapeHtml, heading, list } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, label, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const contactCard = defineBlock(
  'contact-card',
  z.strictObject({
    ...shared,
    kind: z.literal('contact-card'),
    label: label.default('Your instructor'),
  }),
  {
    title: 'Contact card',
    group: 'made',
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh('contact-card', key), label: 'Your instructor' }),
    html: (block, writing) =>
      asWritten(
        heading(block.label) +
          list(
            'ul',
            writing.instructors.map(
              (person) =>
                `${escapeHtml(person.name)}, ${anchor(`mailto:${person.email}`, person.email)}`,
            ),
          ),
      ),
    words: () => null,
  },
)
