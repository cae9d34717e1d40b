import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'links named for what they lead to',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<a href="https://tides.example/">Tide tables</a>'),
    },
    {
      title: 'a vague word within more',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<a href="https://tides.example/">More about tides here in the Sound</a>'),
    },
  ],
  fails: [
    {
      title: 'click here',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>For the tables <a href="https://tides.example/">Click here!</a></p>'),
      evidence: '“Click here!”',
    },
    {
      title: 'an image link without words',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<a href="https://tides.example/"><img src="t.png" alt=""></a>'),
      evidence: 'nothing (it leads to https://tides.example/)',
    },
  ],
}
