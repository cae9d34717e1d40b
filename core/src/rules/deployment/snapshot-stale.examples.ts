import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'read today', change: () => {} },
    { title: 'read a week ago', change: ({ history }) => void (history.readDaysAgo = 7) },
  ],
  fails: [
    {
      title: 'read three weeks ago',
      change: ({ history }) => void (history.readDaysAgo = 21),
      evidence: '2026-09-16T11:40:00Z',
    },
    {
      title: 'read eight days ago',
      change: ({ history }) => void (history.readDaysAgo = 8),
      evidence: '2026-09-16T11:40:00Z',
    },
  ],
}
