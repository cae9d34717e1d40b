import { analysePage, wordDifference } from '../page/index.ts'
import { questionHtml } from '../questions/index.ts'
import {
  answersOf,
  questionKindWords,
  questionName,
  type Question,
  type QuestionSet,
} from '../template/index.ts'
import { same, type Tell } from './change.ts'
import { movedKeys, placeWords } from './order.ts'

const leftWords = {
  fixed: 'as it is written',
  proposed: 'as a proposal',
  sample: 'as a sample',
} as const

/** What a question says, line by line. */
const textOf = ({ body }: Question): string =>
  analysePage(questionHtml(body))
    .paragraphs.map(({ text }) => text)
    .join('\n')

const compareOne = (was: Question, is: Question, tell: Tell): void => {
  const name = `the question ${questionName(is.body)}`
  const set = (words: string) => tell('field-set', `${name}: ${words}`)
  const [before, after] = [textOf(was), textOf(is)]
  if (before !== after) tell('text-changed', `${name} reworded`, wordDifference(before, after))
  if (was.body.kind !== is.body.kind) set(`now of the kind ${questionKindWords(is.body.kind)}`)
  if (was.left !== is.left) set(`now left to the instructor ${leftWords[is.left ?? 'fixed']}`)
  const told = (question: Question) => ({ ...question, left: null })
  const isElsewhere = (question: Question) => ({
    text: textOf(question),
    kind: question.body.kind,
    answers: answersOf(question.body),
  })
  if (same(isElsewhere(was), isElsewhere(is)) && !same(told(was), told(is)))
    set('what is told to students, or how it is shown, changed')
}

const askedWords = (asked: QuestionSet['asked']): string =>
  asked
    ? `at least ${asked.atLeast} asked of the instructor${asked.about === '' ? '' : ` about ${asked.about}`}`
    : 'none asked of the instructor'

/** Compares the questions of an assessment before and after: taken out, added, reworded, moved. */
export const compareQuestions = (
  before: QuestionSet | undefined,
  after: QuestionSet | undefined,
  tell: Tell,
): void => {
  const [old, now] = [before?.list ?? [], after?.list ?? []]
  const nameOf = (key: string): string => {
    const question = now.find((one) => one.key === key)
    return question ? questionName(question.body) : 'a question'
  }
  const whole = (question: Question, change: 'gone' | 'new') => [{ text: textOf(question), change }]
  for (const question of old)
    if (!now.some(({ key }) => key === question.key))
      tell(
        'list-removed',
        `the question ${questionName(question.body)} taken out`,
        whole(question, 'gone'),
      )
  for (const question of now) {
    const was = old.find(({ key }) => key === question.key)
    if (was) compareOne(was, question, tell)
    else
      tell(
        'list-added',
        `the question ${questionName(question.body)} added, ${placeWords(now, question.key, nameOf)}`,
        whole(question, 'new'),
      )
  }
  for (const key of movedKeys(old, now))
    tell('list-changed', `the question ${nameOf(key)} moved ${placeWords(now, key, nameOf)}`)
  if (!same(before?.asked, after?.asked))
    tell(
      'field-set',
      `questions: ${askedWords(after?.asked)} (${askedWords(before?.asked)} before)`,
    )
}
