import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the rubric as deployed', change: () => {} },
    {
      title: 'a rubric of the instructor’s own',
      change: ({ item }) =>
        void (item('assignment', 2).rubric = {
          key: 'own',
          title: 'My rubric',
          criteria: [{ text: 'Good', levels: [{ text: 'yes', points: 100 }] }],
        }),
    },
  ],
  fails: [
    {
      title: 'the rubric was taken off',
      change: ({ item }) => void delete item('assignment', 2).rubric,
      evidence: 'no rubric',
    },
    {
      title: 'in another week',
      change: ({ item }) => void delete item('assignment', 4).rubric,
      evidence: 'no rubric',
    },
  ],
}
