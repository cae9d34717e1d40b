import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'links as deployed', change: () => {} },
    {
      title: 'links within the page and to the outside',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<a href="#tides">Tides</a><a href="https://tides.example/x">Tables</a><a href="mailto:a@kestrelsound.example">Write</a>'),
    },
  ],
  fails: [
    {
      title: 'what it led to is gone',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<a href="/courses/example/items/gone">Old lab</a>'),
      evidence: '“Old lab” (/courses/example/items/gone)',
    },
    {
      title: 'what it names stands under another address now',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<a href="/courses/example/items/old">Week 3 checklist</a>'),
      evidence: '“Week 3 checklist” (/courses/example/items/old)',
    },
    {
      title: 'no address at all',
      change: ({ item }) => void (item('week-overview', 2).html += '<a href="#">Reading</a>'),
      evidence: '“Reading” (#)',
    },
  ],
}
