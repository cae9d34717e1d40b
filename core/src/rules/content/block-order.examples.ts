import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the order of the template', change: () => {} },
    {
      title: 'something of the instructor’s own between two blocks',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          '<div data-wicker-block="promise"',
          '<p>My boat is called Petrel.</p><div data-wicker-block="promise"',
        )),
    },
    {
      title: 'a note to the instructor at the end of the page, without its mark',
      change: ({ item }) =>
        void (item('week-overview', 3).html +=
          '<p>A short recording of yourself works well here.</p>'),
    },
  ],
  fails: [
    {
      title: 'the promise was moved to the top',
      change: ({ item }) => {
        const html = item('welcome').html ?? ''
        const promise = /<div data-wicker-block="promise".*?<\/div>/s.exec(html)?.[0] ?? ''
        item('welcome').html = promise + html.replace(promise, '')
      },
      evidence: '“You will have an answer to every question by Friday of the s”',
    },
    {
      title: 'the list of work stands before what the week is about',
      change: ({ item }) => {
        const html = item('week-overview', 3).html ?? ''
        const list = /<div data-wicker-block="to-do".*?<\/div>/s.exec(html)?.[0] ?? ''
        item('week-overview', 3).html = list + html.replace(list, '')
      },
      evidence: '“To do NAV 110 · Discussion 3: Compass Week 3 checklist”',
    },
  ],
}
