import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'fixed text as deployed', change: () => {} },
    {
      title: 'entities changed, paragraphs rewrapped and wrapped again',
      change: ({ item }) =>
        void (item('welcome').html =
          `<div class="x">${(item('welcome').html ?? '').replace('by Friday', 'by&#32;Friday').replace(/<p>/g, '<p class="y">\n  ')}</div>`),
    },
    {
      title: 'markers stripped',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          / data-wicker-[a-z]+="[^"]*"/g,
          '',
        )),
    },
  ],
  fails: [
    {
      title: 'one word changed',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          'by Friday',
          'by Sunday',
        )),
      evidence: 'Sunday',
    },
    {
      title: 'the passage was taken out',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          /<div data-wicker-block="promise".*?<\/div>/s,
          '',
        )),
      evidence: 'no such passage',
    },
  ],
}
