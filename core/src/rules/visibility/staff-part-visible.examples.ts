import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'hidden as deployed', change: () => {} },
    {
      title: 'published, but in a module that is hidden',
      change: ({ item, module }) => {
        item('staff-notes').published = true
        module('casting-off').published = false
      },
    },
  ],
  fails: [
    {
      title: 'published by mistake',
      change: ({ item }) => void (item('staff-notes').published = true),
      evidence: 'Notes for the instructor',
    },
    {
      title: 'published while the course is still closed',
      change: ({ course, item }) => {
        course.published = false
        item('staff-notes').published = true
      },
      evidence: 'Notes for the instructor',
    },
  ],
}
