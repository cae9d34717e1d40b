import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'due dates as deployed', change: () => {} },
    {
      title: 'the day after the last day is within the grace',
      change: ({ item }) => void (item('assignment', 8).dueAt = '2026-10-24T15:00:00Z'),
    },
  ],
  fails: [
    {
      title: 'due before the first day',
      change: ({ item }) => void (item('assignment', 2).dueAt = '2026-08-21T15:00:00Z'),
      evidence: '2026-08-21',
    },
    {
      title: 'due at Christmas',
      change: ({ item }) => void (item('quiz', 8).dueAt = '2026-12-24T15:00:00Z'),
      evidence: '2026-12-24',
    },
  ],
}
