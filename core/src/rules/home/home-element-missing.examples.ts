import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'all elements as deployed', change: () => {} },
    {
      title: 'markers stripped by the platform, content still there',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          / data-wicker-[a-z]+="[^"]*"/g,
          '',
        )),
    },
  ],
  fails: [
    {
      title: 'the office hours were deleted',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          /<div data-wicker-block="office-hours".*?<\/div>/s,
          '',
        )),
      evidence: 'no office hours',
    },
    {
      title: 'the help passage was deleted',
      change: ({ item }) =>
        void (item('home-page').html = (item('home-page').html ?? '').replace(
          /<div data-wicker-block="help".*?<\/div>/s,
          '',
        )),
      evidence: 'no help',
    },
  ],
}
