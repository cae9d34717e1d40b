import type { ExampleCourse, RuleExamples } from '../rule.ts'

/** The home page of a college of another language, as a platform gives it that keeps no mark of ours. */
const strippedInFrench = ({ template, item }: ExampleCourse): void => {
  for (const block of template.home.blocks)
    if (block.kind === 'signposts') {
      block.label = 'Le premier pas'
      for (const link of block.links) link.text = 'Par ici'
    }
  const home = item('home-page')
  home.html = (home.html ?? '')
    .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')
    .replace('Where to begin', 'Le premier pas')
    .replace('Begin here', 'Par ici')
}

export const examples: RuleExamples = {
  passes: [
    { title: 'the link as deployed', change: () => {} },
    {
      title: 'the page it leads to was renamed',
      change: ({ item }) => void (item('welcome').name = 'Come aboard'),
    },
    { title: 'in another language, every mark stripped', change: strippedInFrench },
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
      title: 'the link leads into another course, in another language and every mark stripped',
      change: (example) => {
        strippedInFrench(example)
        const home = example.item('home-page')
        home.html = (home.html ?? '').replace(
          /href="[^"]*"([^>]*>Par ici)/,
          'href="/courses/901/items/77"$1',
        )
      },
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
