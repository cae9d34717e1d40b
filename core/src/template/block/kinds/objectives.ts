import { z } from 'zod'
import { Key } from '../../words.ts'
import { heading, list } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { leavable } from '../left.ts'
import { fresh, label, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'
import { freshKey } from '../../freshKey.ts'

/** What a student can do after it, and which wider outcomes it serves. */
export const Objective = z.strictObject({
  key: Key,
  text: line,
  serves: z
    .array(Key)
    .max(30)
    .default([])
    .describe('Keys of the module objectives or course outcomes it serves'),
})
export type Objective = z.output<typeof Objective>

export const objectives = defineBlock(
  'objectives',
  z.strictObject({
    ...shared,
    ...leavable,
    kind: z.literal('objectives'),
    label: label.default('By the end you can'),
    objectives: z.array(Objective).min(1).max(30),
  }),
  {
    title: 'Objectives',
    group: 'written',
    isFixed: true,
    answer: 'list',
    htmlFields: [],
    wordFields: ['label'],
    empty: (key) => ({
      ...fresh('objectives', key),
      label: 'By the end you can',
      objectives: [
        {
          key: freshKey(`${key}-1`, new Set()),
          text: 'objective, beginning with a verb you could test',
          serves: [],
        },
      ],
    }),
    html: (block, writing) => {
      const lines = block.objectives.map((objective) => writing.line(objective.text))
      return asWritten(heading(writing.label(block.label)) + list('ol', lines), lines)
    },
    words: (block) => block.objectives.map(({ text }) => ({ text })),
  },
)
