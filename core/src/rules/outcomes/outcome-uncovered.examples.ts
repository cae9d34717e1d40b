import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'both outcomes are assessed', change: () => {} },
    {
      title: 'one of its assignments was removed, others stand',
      change: ({ module, item }) =>
        void module('week', 2).children.splice(
          module('week', 2).children.indexOf(item('assignment', 2)),
          1,
        ),
    },
  ],
  fails: [
    {
      title: 'nothing in the template assesses it',
      change: ({ template }) =>
        void template.outcomes.push({ key: 'signal', text: 'Signal by flag and light' }),
      evidence: 'Signal by flag and light',
    },
    {
      title: 'every assignment was removed',
      change: ({ course }) => {
        for (const module of course.modules)
          module.children = module.children.filter((item) => item.kind !== 'assignment')
      },
      evidence: 'Fix a position by three means',
    },
  ],
}
