import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'an entry of the instructor’s own',
      change: ({ course }) => void course.navigation.push({ label: 'Weather', hidden: true }),
    },
  ],
  fails: [
    {
      title: 'files are shown',
      change: ({ course }) => void (course.navigation[3] = { label: 'Files', hidden: false }),
      evidence: 'Files: shown',
    },
    {
      title: 'grades are hidden',
      change: ({ course }) => void (course.navigation[2] = { label: 'Grades', hidden: true }),
      evidence: 'Grades: hidden',
    },
  ],
}
