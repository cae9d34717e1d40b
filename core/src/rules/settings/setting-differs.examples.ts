import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'attempts that the template leaves open',
      change: ({ item }) => void (item('quiz', 2).work = { ...item('quiz', 2).work, attempts: 3 }),
    },
  ],
  fails: [
    {
      title: 'a longer time',
      change: ({ item }) => void (item('quiz', 2).work = { ...item('quiz', 2).work, minutes: 90 }),
      evidence: '90',
    },
    {
      title: 'text where a file is handed in',
      change: ({ item }) => void (item('assignment', 2).work = { handIn: 'text' }),
      evidence: 'text',
    },
    {
      title: 'right answers shown to whoever has answered first',
      change: ({ item }) =>
        void (item('quiz', 2).work = { ...item('quiz', 2).work, answersShown: 'at-once' }),
      evidence: 'at once',
    },
  ],
}
