import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'points as deployed', change: () => {} },
    {
      title: 'a quiz that may go was removed',
      change: ({ module, item }) =>
        void module('week', 2).children.splice(
          module('week', 2).children.indexOf(item('quiz', 2)),
          1,
        ),
    },
  ],
  fails: [
    {
      title: 'fewer points',
      change: ({ item }) => void (item('assignment', 2).points = 10),
      evidence: '10',
    },
    {
      title: 'no points at all',
      change: ({ item }) => void (item('quiz', 3).points = null),
      evidence: 'no points',
    },
  ],
}
