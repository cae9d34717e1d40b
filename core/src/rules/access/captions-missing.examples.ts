import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'a captions track',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<video src="/m/1.mp4"><track kind="captions" src="/m/1.vtt"></video>'),
    },
    {
      title: 'an embedded film beside its transcript',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<iframe src="https://films.example/embed/1"></iframe><p>With captions; a transcript is below.</p>'),
    },
  ],
  fails: [
    {
      title: 'no track',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<video controls><source src="/m/2.mp4"></video>'),
      evidence: '/m/2.mp4',
    },
    {
      title: 'a track of chapters only',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<video src="/m/3.mp4" title="Buoys"><track kind="chapters" src="/m/3.vtt"></video>'),
      evidence: '/m/3.mp4',
    },
  ],
}
