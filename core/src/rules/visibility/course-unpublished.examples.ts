import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'published', change: () => {} },
    {
      title: 'not yet, two weeks before opening day',
      asOf: '2026-08-17',
      change: ({ course }) => void (course.published = false),
    },
  ],
  fails: [
    {
      title: 'unpublished in week 3',
      change: ({ course }) => void (course.published = false),
      evidence: 'unpublished',
    },
    {
      title: 'unpublished on opening day',
      asOf: '2026-08-31',
      change: ({ course }) => void (course.published = false),
      evidence: 'unpublished',
    },
  ],
}
