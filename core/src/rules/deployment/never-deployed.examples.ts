import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'deployed', change: () => {} },
    {
      title: 'under the template for checking only',
      change: ({ history }) => Object.assign(history, { deployedOn: null, checkOnly: true }),
    },
  ],
  fails: [
    {
      title: 'an empty shell',
      change: ({ course, history }) => {
        history.deployedOn = null
        course.modules = []
        course.stray = []
        course.homePage = null
      },
      evidence: '0 modules, none of them deployed',
    },
    {
      title: 'full, but never deployed to',
      change: ({ history }) => void (history.deployedOn = null),
      evidence: '9 modules, none of them deployed',
    },
  ],
}
