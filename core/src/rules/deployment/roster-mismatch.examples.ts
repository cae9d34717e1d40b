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
    {
      title: 'an assistant is told among those who teach',
      change: ({ course, facts }) => {
        facts.assistants = [{ name: 'Jun Haverkamp', email: 'jun.haverkamp@kestrelsound.example' }]
        course.instructors = [
          'sunniva.drake@kestrelsound.example',
          'Jun.Haverkamp@kestrelsound.example',
        ]
      },
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
    {
      title: 'only the assistant is on the platform',
      change: ({ course, facts }) => {
        facts.assistants = [{ name: 'Jun Haverkamp', email: 'jun.haverkamp@kestrelsound.example' }]
        course.instructors = ['jun.haverkamp@kestrelsound.example']
      },
      evidence: 'sunniva.drake@kestrelsound.example is not on the platform',
    },
  ],
}
