import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'pages without dates', change: () => {} },
    {
      title: 'its own week, and a deadline ahead',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>We meet Sep 14 – Sep 20; the plan is due on October 5.</p>'),
    },
    {
      title: 'one look back at an earlier day',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>Bring the sheets of September 8.</p>'),
    },
  ],
  fails: [
    {
      title: 'the range of another week',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>This week runs September 7 – September 13.</p>'),
      evidence: 'September 7 – September 13',
    },
    {
      title: 'all dates are the week before’s',
      change: ({ item }) =>
        void (item('week-overview', 4).html +=
          '<p>Read by September 15, swim on September 17.</p>'),
      evidence: 'September 15, September 17',
    },
  ],
}
