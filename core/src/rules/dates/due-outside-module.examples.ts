import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'due on the day the template says', change: () => {} },
    {
      title: 'the Monday after is within the grace',
      change: ({ item }) => void (item('assignment', 2).dueAt = '2026-09-14T12:00:00Z'),
    },
  ],
  fails: [
    {
      title: 'due four weeks later',
      change: ({ item }) => void (item('assignment', 2).dueAt = '2026-10-09T02:59:00Z'),
      evidence: '2026-10-08',
    },
    {
      title: 'due before its week begins',
      change: ({ item }) => void (item('quiz', 3).dueAt = '2026-09-11T12:00:00Z'),
      evidence: '2026-09-11',
    },
  ],
}
