import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'all blocks as deployed', change: () => {} },
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
      title: 'the house text was taken out',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          /<div data-wicker-block="muster".*?<\/div>/s,
          '',
        )),
      evidence: 'no Emergency Muster',
    },
    {
      title: 'the list of work was taken out',
      change: ({ item }) =>
        void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
          /<div data-wicker-block="to-do".*?<\/div>/s,
          '',
        )),
      evidence: 'no “To do”',
    },
  ],
}
