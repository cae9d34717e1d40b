import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no window is set', change: () => {} },
    {
      title: 'open a week ahead and three weeks on',
      change: ({ course }) => {
        course.opensAt = '2026-08-24T03:00:00Z'
        course.closesAt = '2026-11-14T03:59:00Z'
      },
    },
    {
      title: 'work that opens, is due and shuts in this order',
      change: ({ item }) =>
        Object.assign(item('quiz', 3), {
          opensAt: '2026-09-14T03:00:00Z',
          closesAt: '2026-09-23T03:00:00Z',
        }),
    },
  ],
  fails: [
    {
      title: 'the course shuts before its last day',
      change: ({ course }) => void (course.closesAt = '2026-10-20T03:00:00Z'),
      evidence: '2026-10-20',
    },
    {
      title: 'the course opens a week late',
      change: ({ course }) => void (course.opensAt = '2026-09-07T12:00:00Z'),
      evidence: '2026-09-07',
    },
    {
      title: 'a quiz that opens after it is due',
      change: ({ item }) => void (item('quiz', 3).opensAt = '2026-09-25T12:00:00Z'),
      evidence: '2026-09-25, 2026-09-20',
    },
  ],
}
