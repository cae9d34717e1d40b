import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'level by level, and back up at once',
      change: ({ item }) =>
        void (item('week-overview', 3).html =
          '<h2>Tides</h2><h3>Springs</h3><h4>Why</h4><h2>Streams</h2>'),
    },
    {
      title: 'a page that begins at level 3',
      change: ({ item }) => void (item('week-overview', 3).html = '<h3>Tides</h3><h4>Springs</h4>'),
    },
  ],
  fails: [
    {
      title: 'from 2 to 4',
      change: ({ item }) => void (item('week-overview', 3).html = '<h2>Tides</h2><h4>Springs</h4>'),
      evidence: '“Springs” (level 4 after level 2)',
    },
    {
      title: 'from 3 to 6, for its size',
      change: ({ item }) =>
        void (item('week-overview', 2).html += '<h3>Marks</h3><h6>Small print</h6>'),
      evidence: '“Small print” (level 6 after level 3)',
    },
  ],
}
