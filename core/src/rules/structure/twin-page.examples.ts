import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'one of each', change: () => {} },
    {
      title: 'a second copy, but none is missing',
      change: ({ module, item }) =>
        void module('week', 3).children.push({
          ...item('week-overview', 3),
          id: 'twin',
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'week 3’s overview stands in week 4 as well',
      change: ({ module, item }) => {
        module('week', 4).children.splice(
          module('week', 4).children.indexOf(item('week-overview', 4)),
          1,
        )
        module('week', 4).children.unshift({
          ...item('week-overview', 3),
          id: 'twin',
          recordedAs: undefined,
        })
      },
      evidence: 'Week 3 overview',
    },
    {
      title: 'two checklists in week 2, none in week 6',
      change: ({ module, item }) => {
        module('week', 6).children.splice(
          module('week', 6).children.indexOf(item('checklist', 6)),
          1,
        )
        module('week', 2).children.push({
          ...item('checklist', 2),
          id: 'twin',
          recordedAs: undefined,
        })
      },
      evidence: 'Week 2 checklist',
    },
  ],
}
