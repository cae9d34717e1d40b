import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'links as deployed', change: () => {} },
    {
      title: 'a staff page that links to itself',
      change: ({ item }) =>
        void (item('staff-notes').html += `<a href="${item('staff-notes').url}">These notes</a>`),
    },
  ],
  fails: [
    {
      title: 'the overview links to the notes',
      change: ({ item }) =>
        void (item('week-overview', 3).html += `<a href="${item('staff-notes').url}">Notes</a>`),
      evidence: '“Notes for the instructor”',
    },
    {
      title: 'the home page does',
      change: ({ item }) =>
        void (item('home-page').html +=
          `<p><a href="${item('staff-notes').url}#x">How we run this</a></p>`),
      evidence: '“Notes for the instructor”',
    },
  ],
}
