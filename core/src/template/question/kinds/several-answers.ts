import { z } from 'zod'
import { choices, faultsOfChoices, twoEmptyChoices } from '../choices.ts'
import { asked, defineQuestion, type QuestionTexts } from '../kind.ts'

export const severalAnswers = defineQuestion(
  'several-answers',
  (texts: QuestionTexts) =>
    z.strictObject({ ...asked(texts), kind: z.literal('several-answers'), ...choices(texts) }),
  {
    title: 'Several answers',
    empty: () => ({
      kind: 'several-answers' as const,
      text: '',
      points: 1,
      choices: twoEmptyChoices(),
      shuffled: true,
    }),
    answers: (question) => question.choices.map(({ text, right }) => ({ text, right })),
    faults: (question) => faultsOfChoices(question.choices),
  },
)
