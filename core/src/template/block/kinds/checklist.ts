import { z } from 'zod'
import { heading, list } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { leavable } from '../left.ts'
import { fresh, label, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const checklist = defineBlock(
  'checklist',
  z.strictObject({
    ...shared,
    ...leavable,
    kind: z.literal('checklist'),
    label: label.default('Before you go on'),
    lines: z.array(line).min(1).max(40),
  }),
  {
    title: 'Checklist',
    group: 'written',
    isFixed: true,
    answer: 'list',
    htmlFields: [],
    wordFields: ['label', 'lines'],
    empty: (key) => ({
      ...fresh('checklist', key),
      label: 'Before you go on',
      lines: ['I have …'],
    }),
    html: (block, writing) => {
      const lines = block.lines.map(writing.line)
      return asWritten(heading(writing.label(block.label)) + list('ul', lines), lines)
    },
    words: (block) => block.lines.map((text) => ({ text })),
  },
)
