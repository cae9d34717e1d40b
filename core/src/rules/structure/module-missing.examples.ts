import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'all modules stand as deployed', change: () => {} },
    {
      title: 'a week renamed beyond recognition is still the week that deployment made',
      change: ({ module }) => void (module('week', 3).name = 'Sounding the harbour'),
    },
    {
      title: 'a break week without its module',
      change: ({ course, module }) =>
        void course.modules.splice(course.modules.indexOf(module('week', 5)), 1),
    },
  ],
  fails: [
    {
      title: 'week 3 was deleted',
      change: ({ course, module }) =>
        void course.modules.splice(course.modules.indexOf(module('week', 3)), 1),
      evidence: 'no module for Week 3 · Sep 14 – Sep 20 · Compass',
    },
    {
      title: 'two weeks were put into one module',
      change: ({ course, module }) => {
        module('week', 3).children.push(...module('week', 4).children)
        module('week', 3).name = 'Weeks 3 and 4: compass and tides'
        course.modules.splice(course.modules.indexOf(module('week', 4)), 1)
      },
      evidence: 'Weeks 3 and 4: compass and tides',
    },
    {
      title: 'the opening module was deleted',
      change: ({ course, module }) =>
        void course.modules.splice(course.modules.indexOf(module('casting-off')), 1),
      evidence: 'no module for Start here',
    },
  ],
}
