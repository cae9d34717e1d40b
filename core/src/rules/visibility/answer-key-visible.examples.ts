import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no key in the course', change: () => {} },
    {
      title: 'the key of a week that is over',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'key',
          name: 'Answer key to quiz 2',
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'the key of this week',
      change: ({ module, item }) =>
        void module('week', 3).children.push({
          ...item('week-overview', 3),
          id: 'key',
          name: 'Quiz 3 answer key',
          recordedAs: undefined,
        }),
      evidence: 'Quiz 3 answer key',
    },
    {
      title: 'solutions as a file',
      change: ({ module, item }) =>
        void module('week', 4).children.push({
          ...item('week-overview', 4),
          id: 'key',
          kind: 'file',
          html: null,
          name: 'Solutions',
          recordedAs: undefined,
        }),
      evidence: 'Solutions',
    },
  ],
}
