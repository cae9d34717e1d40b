import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'open as deployed', change: () => {} },
    {
      title: 'a later week is still hidden',
      change: ({ module }) => void (module('week', 6).published = false),
    },
    {
      title: 'the break week is hidden',
      asOf: '2026-09-30',
      change: ({ module }) => void (module('week', 5).published = false),
    },
    {
      title: 'the course is unpublished, which is one finding of its own',
      change: ({ course, module }) => {
        course.published = false
        module('week', 3).published = false
      },
    },
  ],
  fails: [
    {
      title: 'this week is hidden',
      change: ({ module }) => void (module('week', 3).published = false),
      evidence: 'it is hidden',
    },
    {
      title: 'this week opens two days after it begins',
      change: ({ module }) => void (module('week', 3).opensAt = '2026-09-18T03:00:00Z'),
      evidence: 'it opens 2026-09-18',
    },
    {
      title: 'one page of this week is hidden',
      change: ({ item }) => void (item('week-overview', 3).published = false),
      evidence: 'Week 3 overview',
    },
  ],
}
