import { z } from 'zod'
import { asked, defineQuestion, type QuestionTexts } from '../kind.ts'

export const pattern = defineQuestion(
  'pattern',
  (texts: QuestionTexts) =>
    z.strictObject({
      ...asked(texts),
      kind: z.literal('pattern'),
      answers: z
        .array(z.string().max(1000))
        .max(texts.most)
        .describe('Patterns of answers that are right; * stands for anything, or for nothing'),
    }),
  {
    title: 'Pattern',
    empty: () => ({ kind: 'pattern' as const, text: '', points: 1, answers: [''] }),
    answers: ({ answers }) => answers.map((text) => ({ text, right: true })),
    faults: ({ answers }) => {
      const said = answers.filter((text) => text.trim() !== '')
      if (said.length === 0) return ['no-answer']
      return said.some((text) => /^[*\s]+$/.test(text)) ? ['any-answer'] : []
    },
  },
)
