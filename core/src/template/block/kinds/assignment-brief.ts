import { z } from 'zod'
import { Html } from '../../words.ts'
import { heading } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { leavable } from '../left.ts'
import { fresh, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const assignmentBrief = defineBlock(
  'assignment-brief',
  z.strictObject({
    ...shared,
    ...leavable,
    kind: z.literal('assignment-brief'),
    why: Html.default(''),
    whatToDo: Html,
    handIn: Html.default('').describe('What is handed in, and in which form'),
    judged: Html.default('').describe('How it is judged'),
  }),
  {
    title: 'Assignment brief',
    group: 'written',
    isFixed: true,
    answer: 'rich-text',
    htmlFields: ['why', 'whatToDo', 'handIn', 'judged'],
    wordFields: ['why', 'whatToDo', 'handIn', 'judged'],
    empty: (key) => ({
      ...fresh('assignment-brief', key),
      why: '<p>Why students do this.</p>',
      whatToDo: '<p>What they do.</p>',
      handIn: '<p>What they hand in.</p>',
      judged: '',
    }),
    html: (block, writing) => {
      const pieces = (
        [
          ['Why you do it', block.why],
          ['What to do', block.whatToDo],
          ['What to hand in', block.handIn],
          ['How it is judged', block.judged],
        ] as const
      )
        .filter(([, html]) => html !== '')
        .map(([title, html]) => ({ title, html: writing.html(html) }))
      return asWritten(
        pieces.map(({ title, html }) => heading(title) + html).join(''),
        pieces.map(({ html }) => html),
      )
    },
    words: ({ why, whatToDo, handIn, judged }) =>
      [why, whatToDo, handIn, judged].map((html) => ({ html })),
  },
)
