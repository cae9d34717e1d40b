import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'an entry of the instructor’s own in between',
      change: ({ course }) =>
        void course.navigation.splice(1, 0, { label: 'Weather', hidden: false }),
    },
  ],
  fails: [
    {
      title: 'grades come first',
      change: ({ course }) => {
        const [grades] = course.navigation.splice(2, 1)
        if (grades) course.navigation.unshift(grades)
      },
      evidence: 'Grades',
    },
    {
      title: 'home comes last',
      change: ({ course }) => {
        const [home] = course.navigation.splice(0, 1)
        if (home) course.navigation.push(home)
      },
      evidence: 'Home',
    },
  ],
}
