import type { QuestionFault } from '@wickerframe/core'

/** What is wrong with a question, and what to do, as whoever writes it reads it. */
export const faultWords: Readonly<Record<QuestionFault, string>> = {
  'no-text': 'Nothing is asked yet.',
  'no-answer': 'No answer is marked as right.',
  'too-few-choices': 'There is nothing to choose from: two answers at least.',
  'empty-choice': 'An answer says nothing.',
  'same-choice-twice': 'Two answers say the same.',
  'several-right': 'Several answers are right: make it “Several answers”, or leave one right.',
  'any-answer': 'A pattern of * alone takes any answer for right.',
}
