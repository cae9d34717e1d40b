import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the names that deployment gave', change: () => {} },
    {
      title: 'a part that instructors may rename',
      change: ({ item }) => void (item('quiz', 3).name = 'Deviation drill'),
    },
    {
      title: 'case and spaces are small differences',
      change: ({ item }) => void (item('week-overview', 3).name = 'week 3  Overview'),
    },
  ],
  fails: [
    {
      title: 'a bare name',
      change: ({ item }) => void (item('assignment', 2).name = 'Assignment'),
      evidence: 'Assignment',
    },
    {
      title: 'another course’s code',
      change: ({ item }) =>
        void (item('assignment', 2).name = 'NAV 205 · Assignment 1: Leading marks'),
      evidence: 'NAV 205',
    },
  ],
}
