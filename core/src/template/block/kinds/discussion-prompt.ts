import { z } from 'zod'
import { Html } from '../../words.ts'
import { defineBlock } from '../kind.ts'
import { leavable } from '../left.ts'
import { fresh, line, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const discussionPrompt = defineBlock(
  'discussion-prompt',
  z.strictObject({
    ...shared,
    ...leavable,
    kind: z.literal('discussion-prompt'),
    question: Html,
    firstBy: line.optional(),
    answers: z.number().int().min(0).max(20).default(0).describe('How many classmates to answer'),
    answersBy: line.optional(),
  }),
  {
    title: 'Discussion prompt',
    group: 'written',
    isFixed: true,
    answer: 'rich-text',
    htmlFields: ['question'],
    wordFields: ['question'],
    empty: (key) => ({
      ...fresh('discussion-prompt', key),
      question: '<p>An open question to argue about.</p>',
      answers: 1,
    }),
    html: (block, writing) => {
      const told = [
        ...(block.firstBy ? [`Write first by ${writing.line(block.firstBy)}.`] : []),
        ...(block.answers > 0
          ? [
              `Answer ${block.answers === 1 ? 'one classmate' : `${block.answers} classmates`}${block.answersBy ? ` by ${writing.line(block.answersBy)}` : ''}.`,
            ]
          : []),
      ]
      const question = writing.html(block.question)
      return asWritten(question + (told.length > 0 ? `<p>${told.join(' ')}</p>` : ''), [question])
    },
    words: (block) => [{ html: block.question }],
  },
)
