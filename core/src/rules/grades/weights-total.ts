import { z } from 'zod'
import { weightsTotal } from '../../template/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const weightsTotalRule = defineRule({
  id: 'weights-total',
  group: 'grades',
  title: 'Weights come to 100',
  why: 'With weights that come to 90 or 110, no student can work out the grade, and some cannot reach the best one.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 5,
  messages: { total: 'The weights of what counts come to {seen}, not 100.' },
  *check(context): Generator<Verdict> {
    const scheme = context.course.grading
    if (!scheme?.weighted || scheme.categories.length === 0) {
      yield { subject: aboutCourse, outcome: 'inapplicable' }
      return
    }
    const total = weightsTotal(scheme)
    if (Math.abs(total - 100) < 0.05) yield { subject: aboutCourse, outcome: 'passed' }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'total',
        values: { seen: String(total) },
        evidence: [
          {
            kind: 'value',
            text: scheme.categories
              .map((one) => `${one.name} ${one.weight}${one.counts ? '' : ' (does not count)'}`)
              .join(', '),
          },
        ],
        expected: '100',
      }
  },
  examples: {
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
  },
})
