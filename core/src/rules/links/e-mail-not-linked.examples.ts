import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'a linked address',
      change: ({ item }) =>
        void (item('home-page').html +=
          '<p><a href="mailto:s.drake@kestrelsound.example?subject=NAV">s.drake@kestrelsound.example</a></p>'),
    },
    {
      title: 'an at sign that is no address',
      change: ({ item }) => void (item('home-page').html += '<p>Meet @ the quay.</p>'),
    },
  ],
  fails: [
    {
      title: 'an address in the text',
      change: ({ item }) =>
        void (item('home-page').html += '<p>Write to s.drake@kestrelsound.example.</p>'),
      evidence: 's.drake@kestrelsound.example',
    },
    {
      title: 'linked to another address',
      change: ({ item }) =>
        void (item('week-overview', 2).html +=
          '<p><a href="mailto:old@kestrelsound.example">s.drake@kestrelsound.example</a></p>'),
      evidence: 's.drake@kestrelsound.example',
    },
  ],
}
