import { z } from 'zod'
import { aspectOf } from '../../imageSize.ts'
import { Format, Key } from '../../words.ts'
import { box, escapeHtml, role } from '../html.ts'
import { defineBlock, imageIn } from '../kind.ts'
import { fresh, shared } from '../shared.ts'
import { asWritten, type Writing } from '../writing.ts'

const inWords = (format: string, writing: Writing): string => escapeHtml(writing.name(format))

export const banner = defineBlock(
  'banner',
  z.strictObject({
    ...shared,
    kind: z.literal('banner'),
    image: Key,
    above: Format.optional().describe('A line above the title on it'),
    text: Format.optional().describe('The title that stands on it; without it, it is a picture'),
  }),
  {
    title: 'Banner',
    group: 'written',
    isFixed: false,
    shows: ({ text }) => (text === undefined ? ['banner'] : ['banner', 'course-title']),
    images: ({ image }) => imageIn(image, ['image']),
    htmlFields: [],
    wordFields: ['above', 'text'],
    // The widest of what there is.
    empty: (key, { assets }) => {
      const [widest] = assets.toSorted((a, b) => (aspectOf(b) ?? 1) - (aspectOf(a) ?? 1))
      return widest ? { ...fresh('banner', key), image: widest.key } : null
    },
    html: (block, writing) => {
      const image = writing.image(block.image)
      if (!image) return asWritten('')
      const source = `src="asset:${escapeHtml(image.name)}" alt="${escapeHtml(image.alternativeText)}"`
      const picture = `<p${role('picture')}><img${role('picture')} ${source}></p>`
      if (block.text === undefined) return asWritten(picture)
      const above = block.above ? `<p${role('above')}>${inWords(block.above, writing)}</p>` : ''
      const title = `${above}<h2${role('banner-title')}>${inWords(block.text, writing)}</h2>`
      return asWritten(box('banner', picture + box('plate', title, writing), writing))
    },
    words: ({ above, text }) =>
      text === undefined ? null : [above, text].flatMap((text) => (text ? [{ text }] : [])),
  },
)
