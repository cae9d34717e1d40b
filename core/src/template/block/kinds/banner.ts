import { z } from 'zod'
import { Key } from '../../words.ts'
import { escapeHtml } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const banner = defineBlock(
  'banner',
  z.strictObject({ ...shared, kind: z.literal('banner'), image: Key }),
  {
    title: 'Banner',
    group: 'written',
    isFixed: false,
    shows: 'banner',
    htmlFields: [],
    wordFields: [],
    empty: (key, { assets: [first] }) =>
      first ? { ...fresh('banner', key), image: first.key } : null,
    html: (block, writing) => {
      const image = writing.image(block.image)
      return asWritten(
        image
          ? `<p><img src="asset:${escapeHtml(image.name)}" alt="${escapeHtml(image.alternativeText)}"></p>`
          : '',
      )
    },
    words: () => null,
  },
)
