import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'headings with words',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<h3>Springs <em>and</em> neaps</h3>'),
    },
    {
      title: 'a heading that is an image with words',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<h3><img src="t.png" alt="Tides"></h3>'),
    },
  ],
  fails: [
    {
      title: 'left for the space it makes',
      change: ({ item }) => void (item('week-overview', 3).html += '<h3>&nbsp;</h3>'),
      evidence: 'level 3',
    },
    {
      title: 'only a line break',
      change: ({ item }) => void (item('week-overview', 2).html += '<h4><br></h4>'),
      evidence: 'level 4',
    },
  ],
}
