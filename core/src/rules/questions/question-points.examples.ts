import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'points that come to 20', change: () => {} },
    {
      title: 'an assessment without points',
      change: ({ item }) => void (item('quiz', 2).points = null),
    },
    {
      title: 'halves and thirds, added up',
      change: ({ item }) => {
        const quiz = item('quiz', 2)
        quiz.points = 10
        quiz.questions = [3.33, 3.33, 3.34].map((points, i) => ({
          id: `q-${i}`,
          body: { kind: 'essay', text: '<p>Say why.</p>', points },
        }))
      },
    },
  ],
  fails: [
    {
      title: 'one question was given more',
      change: ({ item }) => {
        const [first] = item('quiz', 2).questions ?? []
        if (first) first.body.points = 10
      },
      evidence: '22 against 20',
    },
    {
      title: 'the assessment is worth less than it was',
      change: ({ item }) => void (item('quiz', 3).points = 12.5),
      evidence: '20 against 12.5',
    },
  ],
}
