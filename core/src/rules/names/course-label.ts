import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'
import { courseNameMessages, tellCourseName } from './courseNameVerdict.ts'

export const courseLabel = defineRule({
  id: 'course-label',
  group: 'names',
  title: 'The short label of the course follows the format',
  why: 'Lists, calendars and messages show the label alone; a label of its own hides which course speaks.',
  untold: 'Small differences, unless the template counts them.',
  strength: 'should',
  parameters: z.strictObject({ acceptSmallDifferences: z.boolean().default(true) }),
  mender: 'designer',
  effortMinutes: 1,
  messages: {
    ...courseNameMessages,
    none: 'The course has no label; by the format it would be “{wanted}”.',
  },
  *check(context, { acceptSmallDifferences }): Generator<Verdict> {
    const { label } = context.course
    const wanted = context.expected.label
    if (label.trim() === '')
      yield {
        subject: aboutCourse,
        outcome: 'failed',
        message: 'none',
        values: { wanted },
        evidence: [{ kind: 'value', text: 'no label' }],
        expected: wanted,
      }
    else
      yield tellCourseName(
        context,
        context.expected.template.naming.courseLabel,
        label,
        wanted,
        'is labelled',
        acceptSmallDifferences,
      )
  },
  mend: (_, context): Change[] => [{ change: 'set-course', label: context.expected.label }],
})
