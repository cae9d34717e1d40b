import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the label that deployment gave', change: () => {} },
    {
      title: 'a full-width character is a small difference',
      change: ({ course }) => void (course.label = 'NAV １10'),
    },
  ],
  fails: [
    {
      title: 'another course’s code',
      change: ({ course }) => void (course.label = 'NAV 205'),
      evidence: 'NAV 205',
    },
    {
      title: 'no label at all',
      change: ({ course }) => void (course.label = ''),
      evidence: 'no label',
    },
  ],
}
