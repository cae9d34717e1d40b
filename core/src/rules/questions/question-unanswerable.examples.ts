import type { RuleExamples } from '../rule.ts'
import type { CourseQuestion } from '../../course/index.ts'

const asking = (body: CourseQuestion['body']): CourseQuestion => ({ id: 'q-own', body })

export const examples: RuleExamples = {
  passes: [
    { title: 'questions as deployed', change: () => {} },
    {
      title: 'a question that is a picture',
      change: ({ item }) =>
        void item('quiz', 2).questions?.push(
          asking({
            kind: 'true-or-false',
            text: '<p><img src="/files/buoy.png" alt="A red buoy with a flat top"></p>',
            points: 0,
            right: true,
          }),
        ),
    },
    {
      title: 'a kind that only the platform knows',
      change: ({ item }) =>
        void item('quiz', 2).questions?.push(
          asking({ kind: 'other', text: '<p>Match the lights.</p>', points: 0 }),
        ),
    },
  ],
  fails: [
    {
      title: 'no answer is marked as right',
      change: ({ item }) => {
        const question = item('quiz', 2).questions?.find(({ body }) => body.kind === 'one-answer')
        if (question?.body.kind === 'one-answer')
          for (const choice of question.body.choices) choice.right = false
      },
      evidence: '“When does a neap tide come?”',
    },
    {
      title: 'a pattern that takes anything',
      change: ({ item }) =>
        void item('quiz', 2).questions?.push(
          asking({ kind: 'pattern', text: '<p>Name a light.</p>', points: 0, answers: ['*'] }),
        ),
      evidence: '“Name a light.”',
    },
    {
      title: 'two answers are right where one is to be chosen',
      change: ({ item }) => {
        const question = item('quiz', 2).questions?.find(({ body }) => body.kind === 'one-answer')
        if (question?.body.kind === 'one-answer')
          for (const choice of question.body.choices) choice.right = true
      },
      evidence: '“When does a neap tide come?”',
    },
  ],
}
