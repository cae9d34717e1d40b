import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'everything is filled in', change: () => {} },
    {
      title: 'a later week may still wait',
      change: ({ item }) =>
        void (item('week-overview', 4).html = (item('week-overview', 4).html ?? '').replace(
          /We learn[^<]*/,
          'In two or three sentences, say what this week is about.',
        )),
    },
    {
      title: 'a filled answer on a page whose markers were stripped',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          / data-wicker-[a-z]+="[^"]*"/g,
          '',
        )),
    },
  ],
  fails: [
    {
      title: 'the prompt still stands',
      change: ({ item }) =>
        void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
          /We learn[^<]*/,
          'In two or three sentences, say what this week is about.',
        )),
      evidence: 'In two or three sentences, say what this week is about.',
    },
    {
      title: 'the prompt was deleted and nothing put in its place',
      change: ({ item }) =>
        void (item('week-overview', 2).html = (item('week-overview', 2).html ?? '').replace(
          /We learn[^<]*/,
          '',
        )),
      evidence: 'nothing',
    },
  ],
}
