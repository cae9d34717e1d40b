import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no totals', change: () => {} },
    {
      title: 'a last paper that is called total but adds nothing up',
      change: ({ module, item }) =>
        void module('week', 8).children.push({
          ...item('quiz', 8),
          id: 'own',
          name: 'Total loss at sea: a case',
          points: 50,
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'the total of all quizzes',
      change: ({ module, item }) =>
        void module('week', 8).children.push({
          ...item('quiz', 8),
          id: 'own',
          name: 'Quiz total',
          points: 140,
          recordedAs: undefined,
        }),
      evidence: 'Quiz total',
    },
    {
      title: 'the total of the assignments',
      change: ({ module, item }) =>
        void module('week', 8).children.push({
          ...item('assignment', 2),
          id: 'own',
          name: 'Assignments overall',
          points: 400,
          recordedAs: undefined,
        }),
      evidence: 'Assignments overall',
    },
  ],
}
