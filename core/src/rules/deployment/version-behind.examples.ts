import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the newest', change: () => {} },
    {
      title: 'checked only',
      change: ({ history }) => Object.assign(history, { checkOnly: true, newestVersion: 4 }),
    },
  ],
  fails: [
    {
      title: 'one behind',
      change: ({ history }) => void (history.newestVersion = 2),
      evidence: 'version 1',
    },
    {
      title: 'three behind',
      change: ({ history }) => Object.assign(history, { deployedVersion: 2, newestVersion: 5 }),
      evidence: 'version 2',
    },
  ],
}
