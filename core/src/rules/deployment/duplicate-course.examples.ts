import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'one course', change: () => {} },
    {
      title: 'nothing known of other courses',
      change: ({ history }) => void (history.sameClassSection = []),
    },
  ],
  fails: [
    {
      title: 'two teaching courses',
      change: ({ history }) =>
        void (history.sameClassSection = [{ name: 'NAV 110 (old)', classSection: '01' }]),
      evidence: 'NAV 110 (old)',
    },
    {
      title: 'three',
      change: ({ history }) =>
        void (history.sameClassSection = [
          { name: 'NAV 110 a', classSection: '01' },
          { name: 'NAV 110 b', classSection: '01' },
        ]),
      evidence: 'NAV 110 b',
    },
  ],
}
