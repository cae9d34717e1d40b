import type { ExampleCourse, RuleExamples } from '../rule.ts'

/** The course runs in the term's first session only; what it has after that was not deployed. */
const inSession = ({ facts }: ExampleCourse): void => {
  facts.term.lastDay = '2026-12-18'
  facts.term.sessions = [
    { code: 'first', title: 'First session', firstDay: '2026-08-31', lastDay: '2026-10-23' },
  ]
  facts.session = 'first'
}

export const examples: RuleExamples = {
  passes: [
    { title: 'due dates as deployed', change: () => {} },
    {
      title: 'the day after the last day is within the grace',
      change: ({ item }) => void (item('assignment', 8).dueAt = '2026-10-24T15:00:00Z'),
    },
    { title: 'within the session of the course', change: inSession },
  ],
  fails: [
    {
      title: 'after the session, though within the term',
      change: (example) => {
        inSession(example)
        example.item('quiz', 8).dueAt = '2026-11-20T15:00:00Z'
      },
      evidence: '2026-11-20',
    },
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
