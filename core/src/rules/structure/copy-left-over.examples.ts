import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no copies', change: () => {} },
    {
      title: 'a number in brackets that is its week',
      change: ({ item }) => void (item('week-overview', 3).name = 'Overview (3)'),
    },
    {
      title: 'a page about making copies',
      change: ({ item }) => void (item('week-overview', 3).name = 'Make a fair copy'),
    },
    {
      title: 'a page about making copies, with a space too many',
      change: ({ item }) => void (item('week-overview', 3).name = 'Make a fair  copy'),
    },
    {
      title: 'a topic that speaks of copying',
      change: ({ module }) =>
        void (module('week', 3).name = 'Week 3 · Sep 14 – Sep 20 · How to copy a chart'),
    },
  ],
  fails: [
    {
      title: 'a page named “(2)”',
      change: ({ item }) => void (item('week-overview', 3).name = 'Week 3 overview (2)'),
      evidence: 'Week 3 overview (2)',
    },
    {
      title: 'a copy of what ends in a letter',
      change: ({ item }) => void (item('week-overview', 3).name = 'Reading for section A - Copy'),
      evidence: 'Reading for section A - Copy',
    },
    {
      title: 'a duplicate beside its original',
      change: ({ module, item }) =>
        void module('week', 2).children.push({
          ...item('assignment', 2),
          id: 'dup',
          recordedAs: undefined,
        }),
      evidence: 'NAV 110 · Assignment 1: Leading marks',
    },
  ],
}
