import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'the template allows it',
      change: ({ course, template }) => {
        course.settings = { ...course.settings, joinByKey: true }
        template.settings.joinByKey = true
      },
    },
  ],
  fails: [
    {
      title: 'turned on beside the roster',
      change: ({ course }) => void (course.settings = { ...course.settings, joinByKey: true }),
      evidence: 'joining by key is on',
    },
    {
      title: 'no roster at all',
      change: ({ course, facts }) => {
        course.settings = { ...course.settings, joinByKey: true }
        facts.classSections = []
      },
      evidence: 'joining by key is on',
    },
  ],
}
