import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'a named link',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<a href="https://tides.example/tables">Tide tables</a>'),
    },
    {
      title: 'a name with a full stop',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>See tides.example for the tables.</p>'),
    },
  ],
  fails: [
    {
      title: 'an address typed into the text',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>Look at https://tides.example/tables?port=7 before class.</p>'),
      evidence: 'https://tides.example/tables?port=7',
    },
    {
      title: 'a link whose words are its address',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<p><a href="http://www.tides.example">www.tides.example</a></p>'),
      evidence: 'www.tides.example',
    },
  ],
}
