import { essay } from './kinds/essay.ts'
import { oneAnswer } from './kinds/one-answer.ts'
import { pattern } from './kinds/pattern.ts'
import { severalAnswers } from './kinds/several-answers.ts'
import { shortAnswer } from './kinds/short-answer.ts'
import { trueOrFalse } from './kinds/true-or-false.ts'

/** The six kinds of question of the QTI 1.2 profile of Common Cartridge 1.3, in the order in which they are offered. */
export const definedQuestions = [
  oneAnswer,
  severalAnswers,
  trueOrFalse,
  shortAnswer,
  pattern,
  essay,
] as const
