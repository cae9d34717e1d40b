import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const courseUnpublished = defineRule({
  id: 'course-unpublished',
  group: 'visibility',
  title: 'The course is published by opening day',
  why: 'Students cannot open the course at all.',
  untold: 'Anything before opening day.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { closed: 'The course is not published; it opened on {day} for everyone else.' },
  *check(context): Generator<Verdict> {
    const subject = aboutCourse
    const day = context.openingDay
    if (context.course.published) yield { subject, outcome: 'passed' }
    else if (!context.reached(day)) yield { subject, outcome: 'not-due-yet', dueOn: day }
    else
      yield {
        subject,
        outcome: 'failed',
        message: 'closed',
        values: { day },
        evidence: [{ kind: 'value', text: 'unpublished' }],
        expected: 'published',
      }
  },
  mend: (): Change[] => [{ change: 'set-course', published: true }],
})
