import { z } from 'zod'
import type { QuestionFault, QuestionTexts } from './kind.ts'

/** Answers to choose from. */
export const choices = ({ line, most }: QuestionTexts) => ({
  choices: z
    .array(
      z.strictObject({
        text: line,
        right: z.boolean().default(false),
        feedback: line.optional().describe('What is told to those who chose it'),
      }),
    )
    .max(most),
  shuffled: z
    .boolean()
    .default(true)
    .describe('Whether every student finds the answers in an order of their own'),
})
export interface Choice {
  text: string
  right: boolean
  feedback?: string | undefined
}

/** What is wrong with answers to choose from, however many of them may be right. */
export const faultsOfChoices = (choices: readonly Choice[]): QuestionFault[] => {
  const texts = choices.map(({ text }) => text.trim().toLowerCase())
  const said = texts.filter((text) => text !== '')
  return [
    ...(choices.length < 2 ? (['too-few-choices'] as const) : []),
    ...(choices.some(({ right }) => right) ? [] : (['no-answer'] as const)),
    ...(said.length < texts.length ? (['empty-choice'] as const) : []),
    ...(new Set(said).size < said.length ? (['same-choice-twice'] as const) : []),
  ]
}

export const twoEmptyChoices = (): Choice[] => [
  { text: '', right: true },
  { text: '', right: false },
]
