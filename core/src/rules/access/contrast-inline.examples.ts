import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'dark red on white',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p style="color:#8b0000">Bring your own lifejacket.</p>'),
    },
    {
      title: 'grey, but large',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p style="color:#949494;font-size:24px">Tides</p>'),
    },
  ],
  fails: [
    {
      title: 'yellow on white',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p><span style="color: yellow">Read this first</span></p>'),
      evidence: '“Read this first” at 1.07 to 1 where 4.5 is needed',
    },
    {
      title: 'grey on a pale ground',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<div style="background:#eee"><p style="color:#888">Small print</p></div>'),
      evidence: '“Small print” at 3.05 to 1 where 4.5 is needed',
    },
  ],
}
