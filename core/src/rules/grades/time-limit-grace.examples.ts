import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'an event that lasts an hour',
      change: ({ item }) =>
        void Object.assign(item('quiz', 2), { kind: 'event', work: { minutes: 60 } }),
    },
    { title: 'work without a time limit', change: ({ item }) => void (item('quiz', 2).work = {}) },
  ],
  fails: [
    {
      title: 'the grace was taken away',
      change: ({ item }) => void (item('quiz', 2).work = { minutes: 30 }),
      evidence: '0 minutes',
    },
    {
      title: 'less than the template wants',
      change: ({ item }) => void (item('quiz', 3).work = { minutes: 30, graceMinutes: 1 }),
      evidence: '1 minutes',
    },
  ],
}
