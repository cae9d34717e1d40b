import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'weights as deployed', change: () => {} },
    {
      title: 'thirds, rounded',
      change: ({ course }) =>
        void (course.grading = {
          weighted: true,
          shown: 'rolled-up',
          categories: ['a', 'b', 'c'].map((key) => ({
            key,
            name: key,
            weight: 33.33,
            counts: true,
          })),
        }),
    },
    {
      title: 'a practice category beside 100',
      change: ({ course }) =>
        void course.grading?.categories.push({
          key: 'practice',
          name: 'Practice',
          weight: 10,
          counts: false,
        }),
    },
  ],
  fails: [
    {
      title: 'a category was added',
      change: ({ course }) =>
        void course.grading?.categories.push({
          key: 'log',
          name: 'Log book',
          weight: 10,
          counts: true,
        }),
      evidence: 'Assignments 60, Discussions 15, Quizzes 25, Log book 10',
    },
    {
      title: 'a weight was lowered',
      change: ({ course }) => void course.grading?.categories.splice(1, 1),
      evidence: 'Assignments 60, Quizzes 25',
    },
  ],
}
