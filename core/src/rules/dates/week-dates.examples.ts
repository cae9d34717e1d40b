import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the dates of the term', change: () => {} },
    {
      title: 'the same days with the month first written in full',
      change: ({ module }) =>
        void (module('week', 3).name = 'Week 3 · September 14 – September 20 · Compass'),
    },
    {
      title: 'the same days in numbers, in another order and language',
      change: ({ module }) => void (module('week', 3).name = 'Semaine 3 : Compas (14/09 au 20/09)'),
    },
  ],
  fails: [
    {
      title: 'last year’s dates',
      change: ({ module }) => void (module('week', 3).name = 'Week 3 · Sep 15 – Sep 21 · Compass'),
      evidence: 'Sep 15 – Sep 21',
    },
    {
      title: 'the dates of the week before',
      change: ({ module }) => void (module('week', 4).name = 'Week 4 · Sep 14 – Sep 20 · Tides'),
      evidence: 'Sep 14 – Sep 20',
    },
    {
      title: 'last year’s dates in numbers',
      change: ({ module }) => void (module('week', 3).name = 'wk 3 - Compass (9/15 to 9/21)'),
      evidence: '(9/15 to 9/21)',
    },
  ],
}
