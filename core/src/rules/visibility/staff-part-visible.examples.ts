import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'for staff only, as deployed', change: () => {} },
    {
      title: 'hidden, on a platform that has nothing for staff only',
      change: ({ item }) =>
        void Object.assign(item('staff-notes'), { staffOnly: false, published: false }),
    },
    {
      title: 'open, but in a module that is hidden',
      change: ({ item, module }) => {
        item('staff-notes').staffOnly = false
        module('casting-off').published = false
      },
    },
  ],
  fails: [
    {
      title: 'opened by mistake',
      change: ({ item }) => void (item('staff-notes').staffOnly = false),
      evidence: 'Notes for the instructor',
    },
    {
      title: 'opened while the course is still closed',
      change: ({ course, item }) => {
        course.published = false
        item('staff-notes').staffOnly = false
      },
      evidence: 'Notes for the instructor',
    },
  ],
}
