import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'nobody has handed in anything', change: () => {} },
    { title: 'work of this term', change: ({ item }) => void (item('quiz', 1).studentWork = true) },
    {
      title: 'an old date nobody worked for is a left-over date, not a reused course',
      change: ({ item }) => void (item('quiz', 1).dueAt = '2025-09-06T02:59:00Z'),
    },
  ],
  fails: [
    {
      title: 'last year’s hand-ins stand in it',
      change: ({ item }) =>
        void Object.assign(item('assignment', 2), {
          dueAt: '2025-09-14T02:59:00Z',
          studentWork: true,
        }),
      evidence: 'NAV 110 · Assignment 1: Leading marks, 2025-09-13',
    },
    {
      title: 'a survey that shut last spring, answered',
      change: ({ item }) =>
        void Object.assign(item('quiz', 1), {
          dueAt: null,
          closesAt: '2026-04-30T02:59:00Z',
          studentWork: true,
        }),
      evidence: 'NAV 110 · Quiz 1: Charts, 2026-04-29',
    },
  ],
}
