import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'one of each', change: () => {} },
    {
      title: 'a second copy, but none is missing',
      change: ({ module, item }) =>
        void module('week', 3).items.push({
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
        module('week', 4).items.splice(module('week', 4).items.indexOf(item('week-overview', 4)), 1)
        module('week', 4).items.unshift({
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
        module('week', 6).items.splice(module('week', 6).items.indexOf(item('checklist', 6)), 1)
        module('week', 2).items.push({ ...item('checklist', 2), id: 'twin', recordedAs: undefined })
      },
      evidence: 'Week 2 checklist',
    },
  ],
}
