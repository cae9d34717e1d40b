import { z } from 'zod'
import { weightsTotal } from '../../template/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const weightsTotalRule = defineRule({
  id: 'weights-total',
  group: 'grades',
  title: 'Weights come to 100',
  why: 'With weights that come to 90 or 110, no student can work out the grade, and some cannot reach the best one.',
  untold: 'Courses that are graded by points, and differences below a twentieth of a percent.',
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
              .map(
                (category) =>
                  `${category.name} ${category.weight}${category.counts ? '' : ' (does not count)'}`,
              )
              .join(', '),
          },
        ],
        expected: '100',
      }
  },
})
