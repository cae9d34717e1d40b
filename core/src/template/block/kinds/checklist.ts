import { z } from 'zod'
import { heading, list } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, label, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const checklist = defineBlock(
  'checklist',
  z.strictObject({
    ...shared,
    kind: z.literal('checklist'),
    label: label.default('Before you go on'),
    lines: z.array(line).min(1).max(40),
  }),
  {
    title: 'Checklist',
    group: 'written',
    isFixed: true,
    htmlFields: [],
    wordFields: ['label', 'lines'],
    empty: (key) => ({
      ...fresh('checklist', key),
      label: 'Before you go on',
      lines: ['I have …'],
    }),
    html: (block, writing) =>
      asWritten(heading(block.label) + list('ul', block.lines.map(writing.line))),
    words: (block) => block.lines.map((text) => ({ text })),
  },
)
