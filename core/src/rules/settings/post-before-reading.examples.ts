import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'an assignment in its place',
      change: ({ item }) =>
        Object.assign(item('discussion', 2), { kind: 'assignment', work: { handIn: 'text' } }),
    },
  ],
  fails: [
    {
      title: 'turned off',
      change: ({ item }) =>
        void (item('discussion', 2).work = { notification: true, postFirst: false }),
      evidence: 'read first',
    },
    {
      title: 'never set',
      change: ({ item }) => void (item('discussion', 3).work = { notification: true }),
      evidence: 'read first',
    },
  ],
}
