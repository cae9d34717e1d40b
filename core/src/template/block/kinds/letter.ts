import { z } from 'zod'
import { Html, Key } from '../../words.ts'
import { box, escapeHtml, role } from '../html.ts'
import { defineBlock, imageIn } from '../kind.ts'
import { leavable } from '../left.ts'
import { fresh, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

/** A paragraph of a letter, as it is asked for. */
const paragraphs = /<p>.*?<\/p>/gs

export const letter = defineBlock(
  'letter',
  z.strictObject({
    ...shared,
    ...leavable,
    kind: z.literal('letter'),
    html: Html,
    portrait: Key.optional().describe(
      'Key of the image shown until they put their own in its place',
    ),
    signed: line.optional().describe('Who signs it; without it, those who teach the course'),
  }),
  {
    title: 'Letter',
    group: 'written',
    isFixed: true,
    answer: 'rich-text',
    images: ({ portrait }) => imageIn(portrait, ['portrait']),
    htmlFields: ['html'],
    wordFields: ['html', 'signed'],
    empty: (key) => ({
      ...fresh('letter', key),
      html: '<p>Dear students,</p><p>welcome to {title}. …</p>',
    }),
    html: (block, writing) => {
      const image = block.portrait === undefined ? null : writing.image(block.portrait)
      const portrait = image
        ? `<p><img${role('round-portrait')} width="96" src="asset:${escapeHtml(image.name)}" alt="${escapeHtml(image.alternativeText)}"></p>`
        : ''
      const signed =
        block.signed === undefined
          ? writing.instructors.map(({ name }) => escapeHtml(name)).join('<br>')
          : writing.line(block.signed)
      const words = writing.html(block.html)
      const signature = signed === '' ? '' : `<p${role('signature')}>${signed}</p>`
      return asWritten(
        box('letter', portrait + words + signature, writing),
        words.match(paragraphs) ?? [words],
      )
    },
    words: (block) => [{ html: block.html }, ...(block.signed ? [{ text: block.signed }] : [])],
  },
)
