import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as the house wrote it', change: () => {} },
    {
      title: 'an earlier revision, word for word, is only outdated',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          'Call 5500.',
          'Call 4400.',
        )),
    },
  ],
  fails: [
    {
      title: 'changed by hand',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          'Call 5500.',
          'Call me.',
        )),
      evidence: 'me',
    },
    {
      title: 'half of it taken out',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(' Call 5500.', '')),
      evidence: 'Call 5500.',
    },
  ],
}
