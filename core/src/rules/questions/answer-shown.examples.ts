import type { CourseQuestion } from '../../course/index.ts'
import type { ExampleCourse, RuleExamples } from '../rule.ts'

const choosing = (...choices: [string, boolean][]): CourseQuestion => ({
  id: 'q-own',
  body: {
    kind: 'one-answer',
    text: '<p>Which light is white?</p>',
    points: 0,
    choices: choices.map(([text, right]) => ({ text, right })),
    shuffled: true,
  },
})
const put =
  (...choices: [string, boolean][]) =>
  ({ item }: ExampleCourse): void =>
    void item('quiz', 2).questions?.push(choosing(...choices))

export const examples: RuleExamples = {
  passes: [
    { title: 'answers that look alike', change: () => {} },
    {
      title: 'every answer begins with a mark',
      change: put(['* the sector light', true], ['* the leading light', false]),
    },
    {
      title: 'words that merely speak of what is right',
      change: put(['The right of way of sail', true], ['The answer of the harbour', false]),
    },
    {
      title: 'answers that say in brackets on which hand something is',
      change: put(['Starboard (right)', true], ['Port (left)', false]),
    },
    {
      title: 'a question that says in which form it is answered',
      change: ({ item }) => {
        const question = choosing(['4 knots', true], ['8 knots', false])
        question.body.text = '<p>How fast is she? Give as your answer: a number of knots.</p>'
        item('quiz', 2).questions?.push(question)
      },
    },
    {
      title: 'practice that shows its answers at once',
      change: ({ item }) =>
        void (item('quiz', 2).work = { practice: true, answersShown: 'at-once', minutes: 30 }),
    },
    {
      title: 'a quiz that is over',
      asOf: '2026-10-20',
      change: ({ item }) =>
        void (item('quiz', 2).work = { ...item('quiz', 2).work, answersShown: 'at-once' }),
    },
  ],
  fails: [
    {
      title: 'a star was left at the right answer',
      change: put(['*the sector light', true], ['the leading light', false]),
      evidence: '*the sector light',
    },
    {
      title: 'the right answer says so',
      change: put(['the sector light (correct)', true], ['the leading light', false]),
      evidence: 'the sector light (correct)',
    },
    {
      title: 'the right answer alone is bold',
      change: put(['<b>the sector light</b>', true], ['the leading light', false]),
      evidence: 'the sector light',
    },
    {
      title: 'the key was pasted along',
      change: ({ item }) => {
        const question = choosing(['the sector light', true], ['the leading light', false])
        question.body.text = '<p>Which light is white?</p><p>Answer: a</p>'
        item('quiz', 2).questions?.push(question)
      },
      evidence: 'Answer: a',
    },
    {
      title: 'answers are shown while others have yet to take it',
      asOf: '2026-09-09',
      change: ({ item }) =>
        void (item('quiz', 2).work = { ...item('quiz', 2).work, answersShown: 'at-once' }),
      evidence: 'right answers are shown at once',
    },
  ],
}
