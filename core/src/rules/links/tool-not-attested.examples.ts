import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'no tool in the course',
      change: ({ module }) => void module('casting-off').children.splice(2, 1),
    },
    { title: 'long before the term', asOf: '2026-08-01', change: () => {} },
  ],
  fails: [
    {
      title: 'a tool that nobody spoke of',
      change: () => {},
      evidence: 'https://tools.kestrelsound.example/charts',
    },
    {
      title: 'another tool, added by the instructor',
      change: ({ module, item }) =>
        void module('week', 3).children.push({
          ...item('chart-table'),
          id: 'sim',
          name: 'Ship simulator',
          target: 'https://sim.example/start',
          recordedAs: undefined,
        }),
      evidence: 'https://sim.example/start',
    },
  ],
}
