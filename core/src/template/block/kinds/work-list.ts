import { z } from 'zod'
import { anchor, heading, list } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, label, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const workList = defineBlock(
  'work-list',
  z.strictObject({ ...shared, kind: z.literal('work-list'), label: label.default('To do') }),
  {
    title: 'Work list',
    group: 'made',
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh('work-list', key), label: 'To do' }),
    html: (block, writing) =>
      asWritten(
        heading(writing.label(block.label)) +
          list(
            'ul',
            writing.moduleLinks().map((link) => anchor(link.href, link.name)),
          ),
      ),
    words: () => null,
  },
)
