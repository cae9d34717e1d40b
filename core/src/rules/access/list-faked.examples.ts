import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'a list',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<ul><li>lines</li><li>lights</li><li>log</li></ul>'),
    },
    {
      title: 'one line that begins with a dash',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>– the master</p><p>It is said that the sea is never full.</p>'),
    },
  ],
  fails: [
    {
      title: 'hyphens',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>- lines</p><p>- lights</p><p>- log</p>'),
      evidence: '- lines',
    },
    {
      title: 'numbers and line breaks',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<p>1. Slip the line<br>2. Back off<br>3. Occurrence</p>'),
      evidence: '1. Slip the line',
    },
  ],
}
