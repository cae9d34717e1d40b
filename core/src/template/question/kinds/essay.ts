import { z } from 'zod'
import { asked, defineQuestion, type QuestionTexts } from '../kind.ts'

export const essay = defineQuestion(
  'essay',
  (texts: QuestionTexts) =>
    z.strictObject({
      ...asked(texts),
      kind: z.literal('essay'),
      model: texts.line.optional().describe('What a good answer says, for whoever marks it'),
    }),
  {
    title: 'Essay',
    empty: () => ({ kind: 'essay' as const, text: '', points: 5 }),
    answers: () => [],
    faults: () => [],
  },
)
