import { z } from 'zod'
import { Key } from '../../words.ts'
import { anchor } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const houseText = defineBlock(
  'house-text',
  z.strictObject({
    ...shared,
    kind: z.literal('house-text'),
    houseText: Key,
    mode: z.enum(['copied', 'linked']).default('copied'),
  }),
  {
    title: 'House text',
    group: 'kept',
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key, { houseTexts: [first] }) =>
      first ? { ...fresh('house-text', key), houseText: first.key, mode: 'copied' as const } : null,
    html: (block, writing) => {
      const text = writing.houseText(block.houseText)
      if (!text) return asWritten('')
      // Linked, the course leads to where the words are kept: they are current at once.
      return asWritten(
        block.mode === 'linked'
          ? `<p>${anchor(`house-text:${text.key}`, text.title)}</p>`
          : text.html,
      )
    },
    words: () => null,
  },
)
