import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'due dates as deployed', change: () => {} },
    {
      title: 'work of a later week may still wait',
      change: ({ item }) => void (item('assignment', 6).dueAt = null),
    },
  ],
  fails: [
    {
      title: 'the due date was taken away',
      change: ({ item }) => void (item('assignment', 2).dueAt = null),
      evidence: 'no due date',
    },
    {
      title: 'a quiz of this week without one',
      change: ({ item }) => void (item('quiz', 3).dueAt = null),
      evidence: 'no due date',
    },
  ],
}
