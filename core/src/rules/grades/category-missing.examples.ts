import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'categories as deployed', change: () => {} },
    {
      title: 'one more of the instructor’s own',
      change: ({ course }) =>
        void course.grading?.categories.push({
          key: 'own',
          name: 'Sea time',
          weight: 0,
          counts: false,
        }),
    },
  ],
  fails: [
    {
      title: 'work outside every category',
      change: ({ item }) => void (item('assignment', 2).category = null),
      evidence: 'none',
    },
    {
      title: 'a category was removed',
      change: ({ course }) => void course.grading?.categories.splice(0, 1),
      evidence: 'no category Assignments',
    },
  ],
}
