import { z } from 'zod'
import { asked, defineQuestion, type QuestionTexts } from '../kind.ts'

export const shortAnswer = defineQuestion(
  'short-answer',
  (texts: QuestionTexts) =>
    z.strictObject({
      ...asked(texts),
      kind: z.literal('short-answer'),
      answers: z
        .array(z.string().max(1000))
        .max(texts.most)
        .describe('Every answer that is right; capital letters make no difference'),
    }),
  {
    title: 'Short answer',
    empty: () => ({ kind: 'short-answer' as const, text: '', points: 1, answers: [''] }),
    answers: ({ answers }) => answers.map((text) => ({ text, right: true })),
    faults: ({ answers }) => (answers.some((text) => text.trim() !== '') ? [] : ['no-answer']),
  },
)
