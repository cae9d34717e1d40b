import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'a free discussion of the instructor’s own is silent',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('discussion', 2),
          id: 'own',
          name: 'Coffee',
          work: { notification: false },
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'turned off',
      change: ({ item }) =>
        void (item('discussion', 2).work = { notification: false, postFirst: true }),
      evidence: 'off',
    },
    {
      title: 'never set',
      change: ({ item }) => void (item('discussion', 3).work = {}),
      evidence: 'not set',
    },
  ],
}
