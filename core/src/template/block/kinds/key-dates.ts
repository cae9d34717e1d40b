import { z } from 'zod'
import { heading, role, roleList } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, label, shared } from '../shared.ts'
import { asWritten, dateLineHtml } from '../writing.ts'

export const keyDates = defineBlock(
  'key-dates',
  z.strictObject({
    ...shared,
    kind: z.literal('key-dates'),
    label: label.default('Key dates'),
    of: z
      .enum(['module', 'term'])
      .default('module')
      .describe(
        'module: what is due in its module; term: opening day, breaks, holidays, other dates, last day',
      ),
  }),
  {
    title: 'Key dates',
    group: 'made',
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh('key-dates', key), label: 'Key dates', of: 'module' as const }),
    html: (block, writing) =>
      asWritten(
        heading(writing.label(block.label)) +
          roleList(
            'dates',
            writing
              .keyDates(block.of)
              .map((line) => `<li${role('date-line')}>${dateLineHtml(line, writing)}</li>`),
          ),
      ),
    words: () => null,
  },
)
