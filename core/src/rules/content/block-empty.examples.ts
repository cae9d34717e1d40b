import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'blocks as deployed', change: () => {} },
    {
      title: 'a block that is gone is told by another rule',
      change: ({ item }) =>
        void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
          /<div data-wicker-block="to-do".*?<\/div>/s,
          '',
        )),
    },
  ],
  fails: [
    {
      title: 'the list was emptied, its heading left',
      change: ({ item }) =>
        void (item('week-overview', 3).html = (item('week-overview', 3).html ?? '').replace(
          /(<div data-wicker-block="to-do"[^>]*><h3>To do<\/h3>).*?<\/div>/s,
          '$1</div>',
        )),
      evidence: 'To do',
    },
    {
      title: 'nothing is left at all',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          /(<div data-wicker-block="muster"[^>]*>).*?<\/div>/s,
          '$1</div>',
        )),
      evidence: 'nothing',
    },
  ],
}
