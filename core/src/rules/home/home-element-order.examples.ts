import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the order of the template', change: () => {} },
    {
      title: 'something of the instructor’s own in between',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          '<div data-wicker-block="begin"',
          '<p>Fair winds!</p><div data-wicker-block="begin"',
        )),
    },
  ],
  fails: [
    {
      title: 'help was moved to the top',
      change: ({ item }) => {
        const html = item('home-page').html ?? ''
        const help = /<div data-wicker-block="help".*?<\/div>/s.exec(html)?.[0] ?? ''
        item('home-page').html = help + html.replace(help, '')
      },
      evidence: 'help',
    },
    {
      title: 'where to begin stands last',
      change: ({ item }) => {
        const html = item('home-page').html ?? ''
        const begin = /<div data-wicker-block="begin".*?<\/div>/s.exec(html)?.[0] ?? ''
        item('home-page').html = html.replace(begin, '') + begin
      },
      evidence: 'help',
    },
  ],
}
