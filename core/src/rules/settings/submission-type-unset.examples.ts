import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'handed in on paper, which is said',
      change: ({ item }) => void (item('assignment', 2).work = { handIn: 'on-paper' }),
    },
  ],
  fails: [
    {
      title: 'never set',
      change: ({ item }) => void (item('assignment', 2).work = {}),
      evidence: 'not set',
    },
    {
      title: 'nothing is taken in',
      change: ({ item }) => void (item('assignment', 4).work = { handIn: 'none' }),
      evidence: 'none',
    },
  ],
}
