import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'every dated item has a name of its own', change: () => {} },
    {
      title: 'two pages of one name reach no calendar',
      change: ({ item }) => void (item('week-overview', 3).name = item('week-overview', 4).name),
    },
  ],
  fails: [
    {
      title: 'two dated quizzes of one name',
      change: ({ item }) => void (item('quiz', 4).name = item('quiz', 3).name),
      evidence: 'NAV 110 · Quiz 3: Compass',
    },
    {
      title: 'the same but for a dash',
      change: ({ item }) => {
        item('quiz', 3).name = 'Drill – marks'
        item('quiz', 4).name = 'drill - marks'
      },
      evidence: 'drill - marks',
    },
  ],
}
