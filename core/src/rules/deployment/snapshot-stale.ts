import { z } from 'zod'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const snapshotStale = defineRule({
  id: 'snapshot-stale',
  group: 'deployment',
  title: 'The course was read lately',
  why: 'What is said of a course that was read weeks ago may be long mended, or long broken.',
  untold: 'Whether anything changed since the course was read.',
  strength: 'should',
  parameters: z.strictObject({ days: z.number().int().min(1).max(200).default(7) }),
  mender: 'designer',
  effortMinutes: 1,
  messages: { stale: 'The course was last read {days} days ago.' },
  *check(context, { days }): Generator<Verdict> {
    const age = context.history?.readDaysAgo ?? null
    if (age === null) yield { subject: aboutCourse, outcome: 'inapplicable' }
    else if (age <= days) yield { subject: aboutCourse, outcome: 'passed' }
    else
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'stale',
        values: { days: String(age) },
        evidence: [{ kind: 'date', text: context.course.readAt }],
        expected: `read within ${days} days`,
      }
  },
})
