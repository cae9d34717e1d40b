import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'numbers 1 to 8', change: () => {} },
    {
      title: 'a number inside a topic is no number of a week',
      change: ({ module }) =>
        void (module('week', 3).name = 'Week 3 · Sep 14 – Sep 20 · Week 2 looked at again'),
    },
    {
      title: 'a number in the instructor’s own style',
      change: ({ module }) => void (module('week', 3).name = 'wk III: Compass'),
    },
  ],
  fails: [
    {
      title: 'two modules numbered 2',
      change: ({ module }) => void (module('week', 3).name = 'Week 2 · Sep 14 – Sep 20 · Compass'),
      evidence: 'Week 2 · Sep 14 – Sep 20 · Compass',
    },
    {
      title: 'a copied week beside its original',
      change: ({ course, module }) =>
        void course.modules.push({
          ...module('week', 4),
          id: 'again',
          children: [],
          recordedAs: undefined,
        }),
      evidence: 'Week 4 · Sep 21 – Sep 27 · Tides',
    },
    {
      title: 'numbers that jump from 7 to 9',
      change: ({ module }) =>
        void (module('week', 8).name = 'Week 9 · Oct 19 – Oct 23 · Passage plan'),
      evidence: 'Week 9 · Oct 19 – Oct 23 · Passage plan',
    },
  ],
}
