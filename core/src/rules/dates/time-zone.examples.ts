import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the zone of the term', change: () => {} },
    {
      title: 'a platform that has one zone for all and tells none',
      change: ({ course }) => void (course.timeZone = null),
    },
  ],
  fails: [
    {
      title: 'the zone the platform was installed in',
      change: ({ course }) => void (course.timeZone = 'UTC'),
      evidence: 'UTC',
    },
    {
      title: 'a zone one hour to the west',
      change: ({ course }) => void (course.timeZone = 'America/Toronto'),
      evidence: 'America/Toronto',
    },
  ],
}
