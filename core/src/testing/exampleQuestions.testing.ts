import type { Question } from '../template/index.ts'

/** A question of each way of being left to the instructor, of different kinds. */
export const exampleQuestions = (): Question[] => [
  {
    key: 'fixed-one',
    body: {
      kind: 'one-answer',
      text: '<p>When does a neap tide come – and <a href="part:welcome">why</a>?</p>',
      points: 8,
      choices: [
        { text: 'At new & full moon', right: false },
        { text: 'At the quarters', right: true, feedback: 'Yes.' },
      ],
      shuffled: true,
    },
  },
  {
    key: 'proposed-one',
    left: 'proposed',
    body: {
      kind: 'short-answer',
      text: '<p>In {code}, what is datum?</p>',
      points: 4,
      answers: ['a & b'],
    },
  },
  {
    key: 'sample-one',
    left: 'sample',
    body: { kind: 'true-or-false', text: '<p>This is an example.</p>', points: 4, right: true },
  },
]
