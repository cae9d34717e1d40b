import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the order of the template', change: () => {} },
    {
      title: 'an extra page of the instructor’s own between two others',
      change: ({ module, item }) =>
        void module('week', 2).children.splice(1, 0, {
          ...item('week-overview', 2),
          id: 'own',
          name: 'Knots we tie this week',
          recordedAs: undefined,
        }),
    },
    {
      title: 'an unpublished module pulled up while it is being worked on',
      change: ({ course, module }) => {
        const week = module('week', 4)
        week.published = false
        course.modules.splice(course.modules.indexOf(week), 1)
        course.modules.unshift(week)
      },
    },
  ],
  fails: [
    {
      title: 'the checklist was moved to the top of its week',
      change: ({ module }) => {
        const items = module('week', 2).children
        const last = items.pop()
        if (last) items.unshift(last)
      },
      evidence: 'Week 2 checklist, 1st',
    },
    {
      title: 'week 3 stands before week 2; one move, not two',
      change: ({ course, module }) => {
        const week = module('week', 4)
        course.modules.splice(course.modules.indexOf(week), 1)
        course.modules.unshift(week)
      },
      evidence: 'Week 4 · Sep 21 – Sep 27 · Tides, 1st',
    },
  ],
}
