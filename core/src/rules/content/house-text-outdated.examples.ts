import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the current revision', change: () => {} },
    {
      title: 'before the new revision is in force the old one is right',
      asOf: '2026-09-01',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          'Call 5500.',
          'Call 4400.',
        )),
    },
  ],
  fails: [
    {
      title: 'the revision of last year',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '').replace(
          'Call 5500.',
          'Call 4400.',
        )),
      evidence: 'In an emergency leave by the stair. Call 4400.',
    },
    {
      title: 'the same on a page whose markers were stripped',
      change: ({ item }) =>
        void (item('welcome').html = (item('welcome').html ?? '')
          .replace('Call 5500.', 'Call 4400.')
          .replace(/ data-wicker-[a-z]+="[^"]*"/g, '')),
      evidence: 'In an emergency leave by the stair. Call 4400.',
    },
  ],
}
