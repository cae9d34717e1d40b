import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the platform does not tell', change: () => {} },
    {
      title: 'the same, letters aside',
      change: ({ course }) =>
        Object.assign(course, {
          classSections: ['01'],
          instructors: ['Sunniva.Drake@kestrelsound.example'],
        }),
    },
  ],
  fails: [
    {
      title: 'a class section too few',
      change: ({ course, facts }) => {
        facts.classSections = ['01', '02']
        course.classSections = ['01']
      },
      evidence: '02 is not on the platform',
    },
    {
      title: 'somebody else teaches it',
      change: ({ course }) =>
        void (course.instructors = [
          'sunniva.drake@kestrelsound.example',
          'old.hand@kestrelsound.example',
        ]),
      evidence: 'old.hand@kestrelsound.example is not in the roster',
    },
  ],
}
