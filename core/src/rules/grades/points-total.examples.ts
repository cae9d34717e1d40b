import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no total agreed', change: () => {} },
    {
      title: 'just the total',
      change: ({ template }) =>
        void template.policies.push({
          rule: 'points-total',
          off: false,
          parameters: { total: 610 },
        }),
    },
  ],
  fails: [
    {
      title: 'a quiz of more points',
      change: ({ template, item }) => {
        template.policies.push({ rule: 'points-total', off: false, parameters: { total: 610 } })
        item('quiz', 3).points = 30
      },
      evidence: '620 points in 18 items',
    },
    {
      title: 'extra work of the instructor’s own',
      change: ({ template, module, item }) => {
        template.policies.push({
          rule: 'points-total',
          off: false,
          parameters: { total: 610, tolerance: 20 },
        })
        module('week', 2).children.push({
          ...item('assignment', 2),
          id: 'own',
          name: 'Knot board',
          recordedAs: undefined,
        })
      },
      evidence: '710 points in 19 items',
    },
  ],
}
