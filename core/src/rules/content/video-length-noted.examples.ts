import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the film of the template says it beside its title', change: () => {} },
    {
      title: 'in the title',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<video src="/m/1.mp4" title="Mooring, 6 min"></video>'),
    },
  ],
  fails: [
    {
      title: 'an embedded film',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>Watch this:</p><iframe src="https://films.example/embed/7" title="Mooring"></iframe>'),
      evidence: 'Mooring',
    },
    {
      title: 'a link to a film',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<p><a href="https://films.example/watch/9">How to read a chart</a></p>'),
      evidence: 'How to read a chart',
    },
  ],
}
