import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the name that deployment gave', change: () => {} },
    {
      title: 'two spaces are a small difference',
      change: ({ course }) => void (course.name = 'NAV 110  Coastal Navigation · Autumn 2026'),
    },
  ],
  fails: [
    {
      title: 'last year’s term still in the name',
      change: ({ course }) => void (course.name = 'NAV 110 Coastal Navigation · Autumn 2025'),
      evidence: 'Autumn 2025',
    },
    {
      title: 'a name of the instructor’s own',
      change: ({ course }) => void (course.name = 'Coastal Nav with Sunniva'),
      evidence: 'Coastal Nav with Sunniva',
    },
  ],
}
