import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the checklist stands last', change: () => {} },
    {
      title: 'a hidden draft after it',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'own',
          name: 'For next year',
          published: false,
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'a page was added after it',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'own',
          name: 'Sea stories',
          html: '<p>Three of them.</p>',
          recordedAs: undefined,
        }),
      evidence: '“Sea stories”',
    },
    {
      title: 'it was moved before the quiz',
      change: ({ module, item }) => {
        const { children } = module('week', 3)
        const checklist = item('checklist', 3)
        children.splice(children.indexOf(checklist), 1)
        children.splice(children.indexOf(item('quiz', 3)), 0, checklist)
      },
      evidence: '“NAV 110 · Quiz 3: Compass”',
    },
  ],
}
