import { z } from 'zod'
import { choices, faultsOfChoices, twoEmptyChoices } from '../choices.ts'
import { asked, defineQuestion, type QuestionTexts } from '../kind.ts'

export const oneAnswer = defineQuestion(
  'one-answer',
  (texts: QuestionTexts) =>
    z.strictObject({ ...asked(texts), kind: z.literal('one-answer'), ...choices(texts) }),
  {
    title: 'One answer',
    empty: () => ({
      kind: 'one-answer' as const,
      text: '',
      points: 1,
      choices: twoEmptyChoices(),
      shuffled: true,
    }),
    answers: (question) => question.choices.map(({ text, right }) => ({ text, right })),
    faults: (question) => [
      ...faultsOfChoices(question.choices),
      ...(question.choices.filter(({ right }) => right).length > 1
        ? (['several-right'] as const)
        : []),
    ],
  },
)
