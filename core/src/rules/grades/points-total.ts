import { z } from 'zod'
import { foldedName } from '../../naming/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const pointsTotal = defineRule({
  id: 'points-total',
  group: 'grades',
  title: 'All points of the course come to the agreed total',
  why: 'Where grades are read as points of a fixed total, a total that is off shifts every grade.',
  untold: 'Practice, categories outside the grade, and templates that give no total.',
  strength: 'should',
  parameters: z.strictObject({
    total: z
      .number()
      .min(1)
      .max(100_000)
      .optional()
      .describe('Points of all that counts; without it the rule does not apply'),
    tolerance: z.number().min(0).max(10_000).default(0),
  }),
  mender: 'instructor',
  effortMinutes: 10,
  messages: { total: 'What counts comes to {seen points}, not {wanted}.' },
  *check(context, { total, tolerance }): Generator<Verdict> {
    if (total === undefined) {
      yield { subject: aboutCourse, outcome: 'inapplicable' }
      return
    }
    const practice = new Set(
      (context.course.grading?.categories ?? [])
        .filter((category) => !category.counts)
        .map((category) => foldedName(category.name)),
    )
    const counted = context.placedItems.filter(
      ({ item }) =>
        (item.points ?? 0) > 0 &&
        item.work?.practice !== true &&
        !practice.has(foldedName(item.category ?? '')),
    )
    const sum =
      Math.round(counted.reduce((all, { item }) => all + (item.points ?? 0), 0) * 100) / 100
    if (Math.abs(sum - total) <= tolerance) yield { subject: aboutCourse, outcome: 'passed' }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'total',
        values: { seen: String(sum), wanted: String(total) },
        evidence: [{ kind: 'value', text: `${sum} points in ${counted.length} items` }],
        expected: String(total),
      }
  },
})
