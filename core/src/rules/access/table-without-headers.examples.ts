import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'a header row',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<table><tr><th>Port</th><th>High</th></tr><tr><td>Sound</td><td>4.2</td></tr></table>'),
    },
    {
      title: 'a table marked as layout only',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<table role="presentation"><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></table>'),
    },
  ],
  fails: [
    {
      title: 'figures without headers',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<table><tr><td>Port</td><td>High</td></tr><tr><td>Sound</td><td>4.2</td></tr></table>'),
      evidence: '2 rows, 4 cells',
    },
    {
      title: 'bold words are no headers',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<table><tbody><tr><td><b>Light</b></td><td><b>Period</b></td></tr><tr><td>Fl</td><td>5s</td></tr><tr><td>Oc</td><td>8s</td></tr></tbody></table>'),
      evidence: '3 rows, 6 cells',
    },
  ],
}
