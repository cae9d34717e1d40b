import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'this term’s dates only',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>Hand in by September 18, 2026.</p>'),
    },
    {
      title: 'an old date beside a word that says so',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>Chart 4011, edition of 3 March 2019.</p>'),
    },
  ],
  fails: [
    {
      title: 'last year’s date in a page',
      change: ({ item }) =>
        void (item('week-overview', 3).html += '<p>The harbour walk is on September 18, 2025.</p>'),
      evidence: 'September 18, 2025',
    },
    {
      title: 'last year’s due date in the settings',
      change: ({ item }) => void (item('assignment', 2).dueAt = '2025-09-12T02:59:00Z'),
      evidence: '2025-09-11',
    },
  ],
}
