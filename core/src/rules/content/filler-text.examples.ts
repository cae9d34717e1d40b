import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'real text everywhere', change: () => {} },
    {
      title: 'a word that only contains a phrase',
      change: ({ item }) => void (item('week-overview', 3).html += '<p>We tabulate the tides.</p>'),
    },
  ],
  fails: [
    {
      title: 'filler in a page',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>Lorem ipsum dolor sit amet.</p>'),
      evidence: 'Lorem ipsum dolor sit amet.',
    },
    {
      title: 'to be added',
      change: ({ item }) => void (item('week-overview', 2).html += '<p>Reading list: TBA</p>'),
      evidence: 'Reading list: TBA',
    },
  ],
}
