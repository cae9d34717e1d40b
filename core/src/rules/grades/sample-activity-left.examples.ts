import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'real work', change: () => {} },
    {
      title: 'a sample that carries no points',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'own',
          name: 'Sample log book page',
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'a sample quiz',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('quiz', 2),
          id: 'own',
          name: 'Sample quiz',
          recordedAs: undefined,
        }),
      evidence: 'Sample quiz',
    },
    {
      title: 'a renamed placeholder',
      change: ({ item }) => void (item('assignment', 2).name = 'Untitled assignment'),
      evidence: 'Untitled assignment',
    },
  ],
}
