import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'all kinds as deployed', change: () => {} },
    {
      title: 'an assignment in place of a discussion, which the template accepts',
      change: ({ item }) => void (item('discussion', 2).kind = 'assignment'),
    },
  ],
  fails: [
    {
      title: 'the discussion became a page',
      change: ({ item }) => void (item('discussion', 2).kind = 'page'),
      evidence: 'page',
    },
    {
      title: 'the assignment became a web link',
      change: ({ item }) => void (item('assignment', 2).kind = 'web-link'),
      evidence: 'web-link',
    },
  ],
}
