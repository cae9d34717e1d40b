import { z } from 'zod'
import { asked, defineQuestion, type QuestionTexts } from '../kind.ts'

export const trueOrFalse = defineQuestion(
  'true-or-false',
  (texts: QuestionTexts) =>
    z.strictObject({ ...asked(texts), kind: z.literal('true-or-false'), right: z.boolean() }),
  {
    title: 'True or false',
    empty: () => ({ kind: 'true-or-false' as const, text: '', points: 1, right: true }),
    answers: ({ right }) => [
      { text: 'True', right },
      { text: 'False', right: !right },
    ],
    faults: () => [],
  },
)
