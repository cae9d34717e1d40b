import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'a setting the template says nothing of',
      change: ({ course }) => void (course.settings = { ...course.settings, notices: false }),
    },
  ],
  fails: [
    {
      title: 'the running grade was hidden',
      change: ({ course }) => void (course.settings = { ...course.settings, gradesShown: false }),
      evidence: 'off',
    },
    {
      title: 'its contents stand by date',
      change: ({ course }) => void (course.settings = { ...course.settings, arranged: 'by-date' }),
      evidence: 'by date',
    },
    {
      title: 'another language',
      change: ({ course }) => void (course.settings = { ...course.settings, language: 'fr' }),
      evidence: 'fr',
    },
  ],
}
