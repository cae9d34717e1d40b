import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'ungraded work with a rubric',
      change: ({ item }) => void (item('assignment', 2).points = null),
    },
  ],
  fails: [
    {
      title: 'a criterion was taken out',
      change: ({ item }) => void item('assignment', 2).rubric?.criteria.pop(),
      evidence: '60 against 100',
    },
    {
      title: 'the work’s points were changed',
      change: ({ item }) => void (item('assignment', 4).points = 50),
      evidence: '100 against 50',
    },
  ],
}
