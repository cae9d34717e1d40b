import { z } from 'zod'
import { Key } from '../../words.ts'
import { anchor, box, escapeHtml, heading, role, roleList } from '../html.ts'
import { defineBlock, imageIn } from '../kind.ts'
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
    portrait: Key.optional().describe(
      'Key of the image shown until they put their own in its place',
    ),
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
    shows: () => ['instructor-contact'],
    images: ({ portrait }) => imageIn(portrait, ['portrait']),
    htmlFields: [],
    wordFields: ['label', 'lines'],
    empty: (key) => ({ ...fresh('contact-card', key), label: 'Your instructor' }),
    html: (block, writing) => {
      const lines = (block.lines ?? []).map((text) => `<p>${writing.line(text)}</p>`)
      const people = writing.instructors.map(
        (person) =>
          `<li>${escapeHtml(person.name)}, ${anchor(`mailto:${person.email}`, person.email)}</li>`,
      )
      const image = block.portrait === undefined ? null : writing.image(block.portrait)
      const portrait = image
        ? `<p><img${role('portrait')} width="140" src="asset:${escapeHtml(image.name)}" alt="${escapeHtml(image.alternativeText)}"></p>`
        : ''
      const told =
        portrait + heading(writing.label(block.label)) + roleList('people', people) + lines.join('')
      return asWritten(block.card ? told : box('card', told, writing), lines)
    },
    words: (block) => (block.lines ?? []).map((text) => ({ text })),
  },
)
