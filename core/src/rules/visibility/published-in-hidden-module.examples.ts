import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'both open', change: () => {} },
    {
      title: 'a later week is being prepared',
      change: ({ module }) => void (module('week', 6).published = false),
    },
  ],
  fails: [
    {
      title: 'the assignment of a hidden week',
      change: ({ module }) => void (module('week', 2).published = false),
      evidence: 'Week 2 · Sep 7 – Sep 13 · Leading marks is hidden',
    },
    {
      title: 'the quiz of this week',
      change: ({ module }) => void (module('week', 3).published = false),
      evidence: 'Week 3 · Sep 14 – Sep 20 · Compass is hidden',
    },
  ],
}
