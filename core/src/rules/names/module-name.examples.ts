import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the names that deployment gave', change: () => {} },
    {
      title: 'a topic of the instructor’s own, with a hyphen for the dash',
      change: ({ module }) =>
        void (module('week', 3).name = 'Week 3 · Sep 14 - Sep 20 · Compass and its errors'),
    },
    {
      title: 'wrong dates are told by week-dates, not here',
      change: ({ module }) => void (module('week', 3).name = 'Week 3 · Sep 15 – Sep 21 · Compass'),
    },
  ],
  fails: [
    {
      title: 'a name in the instructor’s own style',
      change: ({ module }) => void (module('week', 3).name = 'wk 3 - Compass'),
      evidence: 'wk 3 - Compass',
    },
    {
      title: 'the number of another week',
      change: ({ module }) => void (module('week', 3).name = 'Week 2 · Sep 14 – Sep 20 · Compass'),
      evidence: '2',
    },
    {
      title: 'the prompt still stands for the topic',
      change: ({ module }) => void (module('week', 3).name = 'Week 3 · Sep 14 – Sep 20 · [topic]'),
      evidence: 'Week 3 · Sep 14 – Sep 20 · [topic]',
    },
  ],
}
