import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    {
      title: 'a course of one class section',
      change: ({ course }) => void (course.name = 'NAV 110-01 Coastal Navigation · Autumn 2026'),
    },
    {
      title: 'a merged course named for the course alone',
      change: ({ facts }) => void (facts.classSections = ['01', '02']),
    },
  ],
  fails: [
    {
      title: 'a merged course still named for its first class section',
      change: ({ facts, course }) => {
        facts.classSections = ['01', '02']
        course.name = 'NAV 110-01 Coastal Navigation · Autumn 2026'
      },
      evidence: '-01',
    },
    {
      title: 'the class section spelt out',
      change: ({ facts, course }) => {
        facts.classSections = ['01', '02']
        course.name = 'NAV 110 Coastal Navigation · Autumn 2026 (section 02)'
      },
      evidence: '(section 02)',
    },
  ],
}
