import { z } from 'zod'
import { anchor, escapeHtml, heading, list } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { askable } from '../left.ts'
import { fresh, label, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const contactCard = defineBlock(
  'contact-card',
  z.strictObject({
    ...shared,
    ...askable,
    kind: z.literal('contact-card'),
    label: label.default('Your instructor'),
    lines: z
      .array(line)
      .max(12)
      .optional()
      .describe('What is said below, e.g. when and where to find them'),
  }),
  {
    title: 'Contact card',
    group: 'made',
    isFixed: false,
    answer: 'text',
    shows: 'instructor-contact',
    htmlFields: [],
    wordFields: ['label', 'lines'],
    empty: (key) => ({ ...fresh('contact-card', key), label: 'Your instructor' }),
    html: (block, writing) => {
      const lines = (block.lines ?? []).map((text) => `<p>${writing.line(text)}</p>`)
      const people = writing.instructors.map(
        (person) => `${escapeHtml(person.name)}, ${anchor(`mailto:${person.email}`, person.email)}`,
      )
      return asWritten(heading(block.label) + list('ul', people) + lines.join(''), lines)
    },
    words: (block) => (block.lines ?? []).map((text) => ({ text })),
  },
)
