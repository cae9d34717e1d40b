import { describe, expect, it } from 'vitest'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, type QuestionSet, type Template } from '../template/index.ts'
import { exampleQuestions } from '../testing/exampleQuestions.testing.ts'
import { compareTemplates } from './compareTemplates.ts'

const asking = (questions: QuestionSet | undefined): Template => {
  const template = exampleTemplate()
  for (const item of everyItem(template)) if (item.kind === 'assessment') item.questions = questions
  return template
}
const told = (change: (questions: QuestionSet) => void): string[] => {
  const after: QuestionSet = { list: exampleQuestions() }
  change(after)
  return compareTemplates(asking({ list: exampleQuestions() }), asking(after)).map(
    ({ words }) => words,
  )
}

describe('what is told of questions in a new version', () => {
  it.each<[string, (questions: QuestionSet) => void, string]>([
    [
      'one that was taken out',
      ({ list }) => void list.pop(),
      'the question “This is an example.” taken out',
    ],
    [
      'one that came',
      ({ list }) =>
        void list.push({ key: 'why', body: { kind: 'essay', text: '<p>Why?</p>', points: 2 } }),
      'the question “Why?” added, last',
    ],
    [
      'other words',
      ({ list: [, second] }) => {
        if (second) second.body.text = '<p>What is datum here?</p>'
      },
      'the question “What is datum here?” reworded',
    ],
    [
      'another right answer',
      ({ list: [, , third] }) => {
        if (third?.body.kind === 'true-or-false') third.body.right = false
      },
      'the question “This is an example.” reworded',
    ],
    [
      'what instructors may do',
      ({ list: [, , third] }) => void delete third?.left,
      'the question “This is an example.”: now left to the instructor as it is written',
    ],
    [
      'what is told afterwards',
      ({ list: [, second] }) => {
        if (second) second.body.feedback = 'See week 2.'
      },
      'the question “In {code}, what is datum?”: what is told to students, or how it is shown, changed',
    ],
    [
      'another order',
      ({ list }) => void list.push(...list.splice(0, 1)),
      'the question “When does a neap tide come – and why?” moved last',
    ],
    [
      'some asked of the instructor',
      (questions) => void (questions.asked = { atLeast: 5, about: 'your syllabus' }),
      'questions: at least 5 asked of the instructor about your syllabus (none asked of the instructor before)',
    ],
  ])('%s', (_, change, words) => {
    expect(told(change)).toEqual([words])
  })
  it('nothing where nothing changed, and no key in any of it', () => {
    expect(told(() => undefined)).toEqual([])
    expect(told(({ list }) => void list.reverse()).join(' ')).not.toMatch(/fixed-one|sample-one/)
  })
})
