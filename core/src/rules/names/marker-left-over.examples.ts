import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'names without notes', change: () => {} },
    {
      title: 'a word of the topic, not in capitals',
      change: ({ module }) =>
        void (module('week', 3).name = 'Week 3 · Sep 14 – Sep 20 · The new compass and the old'),
    },
    {
      title: 'a name all in capitals',
      change: ({ module }) =>
        void (module('week', 3).name = 'WEEK 3 · SEP 14 – SEP 20 · OLD COMPASSES'),
    },
  ],
  fails: [
    {
      title: 'a note to self',
      change: ({ item }) => void (item('quiz', 3).name = 'NAV 110 · Quiz 3: Compass OLD'),
      evidence: 'OLD',
    },
    {
      title: 'a row of stars',
      change: ({ module }) =>
        void (module('week', 4).name = '*** Week 4 · Sep 21 – Sep 27 · Tides'),
      evidence: '***',
    },
  ],
}
