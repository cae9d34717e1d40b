import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { courseNameMessages, tellCourseName } from './courseNameVerdict.ts'

export const courseName = defineRule({
  id: 'course-name',
  group: 'names',
  title: 'The course is named by the format',
  why: 'A course called the same every year cannot be told from last year’s in a student’s list.',
  untold: 'Small differences, unless the template counts them.',
  strength: 'must',
  parameters: z.strictObject({ acceptSmallDifferences: z.boolean().default(true) }),
  mender: 'designer',
  effortMinutes: 1,
  messages: courseNameMessages,
  *check(context, { acceptSmallDifferences }): Generator<Verdict> {
    yield tellCourseName(
      context,
      context.expected.template.naming.courseName,
      context.course.name,
      context.expected.name,
      'is called',
      acceptSmallDifferences,
    )
  },
  mend: (_, context): Change[] => [{ change: 'set-course', name: context.expected.name }],
})
