import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'links as deployed', change: () => {} },
    {
      title: 'a link to the college’s own site',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<a href="https://kestrelsound.example/courses/list">All courses</a>'),
    },
  ],
  fails: [
    {
      title: 'into last term’s copy',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<a href="/courses/spring-9/items/44">Week 3 checklist</a>'),
      evidence: '“Week 3 checklist” (/courses/spring-9/items/44)',
    },
    {
      title: 'on a page of the instructor’s own',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'own',
          name: 'Knots',
          html: '<a href="/courses/12/items/3">Bowline</a>',
          recordedAs: undefined,
        }),
      evidence: '“Bowline” (/courses/12/items/3)',
    },
  ],
}
