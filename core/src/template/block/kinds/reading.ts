import { z } from 'zod'
import { Address } from '../../../document/index.ts'
import { escapeHtml, heading, list, minuteWords } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { leavable } from '../left.ts'
import { fresh, label, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const reading = defineBlock(
  'reading',
  z.strictObject({
    ...shared,
    ...leavable,
    kind: z.literal('reading'),
    label: label.default('Reading'),
    works: z
      .array(
        z.strictObject({
          text: line,
          url: Address.optional(),
          minutes: z.number().min(0).max(6000).optional(),
        }),
      )
      .min(1)
      .max(60),
  }),
  {
    title: 'Reading',
    group: 'written',
    isFixed: true,
    answer: 'list',
    htmlFields: [],
    wordFields: ['label', 'works'],
    empty: (key) => ({
      ...fresh('reading', key),
      label: 'Reading',
      works: [{ text: 'What to read, with its pages' }],
    }),
    html: (block, writing) => {
      const works = block.works.map((work) => {
        const name = writing.line(work.text)
        const about = minuteWords(work.minutes).map((words) => ` (about ${words})`)
        return (work.url ? `<a href="${escapeHtml(work.url)}">${name}</a>` : name) + about.join('')
      })
      return asWritten(heading(writing.label(block.label)) + list('ul', works), works)
    },
    words: (block) => block.works.map(({ text }) => ({ text })),
  },
)
