import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'due on class days', change: () => {} },
    {
      title: 'the evening before the break',
      change: ({ item }) => void (item('assignment', 4).dueAt = '2026-09-28T02:59:00Z'),
    },
  ],
  fails: [
    {
      title: 'due in the pause',
      change: ({ item }) => void (item('assignment', 4).dueAt = '2026-09-30T15:00:00Z'),
      evidence: '2026-09-30',
    },
    {
      title: 'an event held in the pause',
      change: ({ item }) =>
        void Object.assign(item('assignment', 4), { kind: 'event', dueAt: '2026-09-30T15:00:00Z' }),
      evidence: '2026-09-30',
    },
    {
      title: 'due on a holiday',
      change: ({ item }) => void (item('assignment', 2).dueAt = '2026-09-07T15:00:00Z'),
      evidence: '2026-09-07',
    },
  ],
}
