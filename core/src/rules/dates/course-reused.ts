import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const courseReused = defineRule({
  id: 'course-reused',
  group: 'dates',
  title: 'The course is this term’s own, not last term’s filled again',
  why: 'In a course used twice, new students read the work and marks of the last ones, and nobody can tell afterwards whose is whose.',
  untold: 'Work of an earlier term that nobody handed in: that is told date by date.',
  strength: 'must',
  parameters: z.strictObject({
    daysBefore: z
      .number()
      .int()
      .min(1)
      .max(366)
      .default(21)
      .describe('Work due so many days before the first day was another term’s'),
  }),
  mender: 'administrator',
  effortMinutes: 30,
  messages: {
    reused:
      'Students’ work stands in “{item}”, which was due {due}, before {term} began: this is an earlier term’s course, filled again.',
  },
  *check(context, { daysBefore }): Generator<Verdict> {
    const before = addDays(context.openingDay, -daysBefore)
    const old = context.placedItems.flatMap(({ item }) => {
      const last = item.dueAt ?? item.closesAt
      return item.studentWork && last !== null && context.dateOf(last) < before
        ? [{ item, due: context.dateOf(last) }]
        : []
    })
    const [first] = old.sort((a, b) => (a.due < b.due ? -1 : 1))
    if (!first) yield { subject: aboutCourse, outcome: 'passed' }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'reused',
        values: { item: first.item.name, due: first.due, term: context.term.title },
        evidence: old
          .slice(0, 10)
          .map(({ item, due }) => ({ kind: 'words', text: `${item.name}, ${due}` }) as const),
        expected: 'a course of its own for this term',
        itemId: first.item.id,
      }
  },
})
