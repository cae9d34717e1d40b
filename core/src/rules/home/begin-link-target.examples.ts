import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the link as deployed', change: () => {} },
    {
      title: 'the page it leads to was renamed',
      change: ({ item }) => void (item('welcome').name = 'Come aboard'),
    },
  ],
  fails: [
    {
      title: 'the link leads into another course',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          /(data-wicker-block="begin".*?href=")[^"]*/s,
          '$1/courses/901/items/77',
        )),
      evidence: '/courses/901/items/77',
    },
    {
      title: 'the link was taken out',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          /(data-wicker-block="begin".*?)<a [^>]*>(.*?)<\/a>/s,
          '$1$2',
        )),
      evidence: 'no link',
    },
  ],
}
