import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'an entry of the instructor’s own',
      change: ({ course }) => void course.navigation.push({ label: 'Weather', hidden: false }),
    },
  ],
  fails: [
    {
      title: 'an entry was taken out',
      change: ({ course }) => void course.navigation.splice(2, 1),
      evidence: 'no Grades',
    },
    {
      title: 'an entry was renamed',
      change: ({ course }) => void (course.navigation[1] = { label: 'Stuff', hidden: false }),
      evidence: 'no Contents',
    },
  ],
}
