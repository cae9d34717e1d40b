import { z } from 'zod'
import { carryKinds, Key } from '@wickerframe/core'
import { RowId } from '../pathParameters.ts'
import { csv } from '../route.ts'
import { AsShown, Flag, type Routes } from './asked.ts'

export const NextTerm = z.strictObject({
  term: z.string().min(1).max(60),
  courses: z.array(RowId).min(1).max(5000),
  carry: z.array(z.enum(carryKinds)).max(20),
})
export const MadeCourses = z.strictObject({
  dry: z.boolean(),

  /** Of all that the preview was made from. */
  digest: z.string(),

  /** How the file was read, where that wants telling. */
  note: z.string(),
  made: z.array(
    z.strictObject({
      platformId: z.string(),
      name: z.string(),
      classSections: z.array(z.string()),
    }),
  ),
  errors: z.array(
    z.strictObject({ line: z.number(), column: z.string(), found: z.string(), reason: z.string() }),
  ),
})
export type MadeCourses = z.output<typeof MadeCourses>
export const CourseValuesReport = z.strictObject({
  dry: z.boolean(),
  digest: z.string(),
  note: z.string(),
  courses: z.number(),
  changes: z.array(
    z.strictObject({ course: z.string(), what: z.string(), from: z.string(), to: z.string() }),
  ),
  errors: MadeCourses.shape['errors'],
})
export type CourseValuesReport = z.output<typeof CourseValuesReport>

export const madeCourseRoutes = {
  makeCourses: {
    method: 'post',
    path: '/api/courses/made',
    summary: 'Make courses on the platform from roster rows that name none; dry: only say which',
    may: 'keep courses',
    query: AsShown.extend({
      dry: Flag,
      how: z
        .enum(['each', 'shared'])
        .describe('One course for each class section, or one that several share'),
      template: Key.optional().describe('Its naming format names them'),
    }),
    body: csv,
    answer: MadeCourses,
  },
  setCourseValues: {
    method: 'post',
    path: '/api/courses/values',
    summary:
      'Set topics, rooms, meeting days, units and instructors of courses from a table, as a file or pasted; dry: only say what would change',
    may: 'keep courses',
    query: AsShown.extend({ dry: Flag }),
    body: csv,
    answer: CourseValuesReport,
  },
  makeNextTerm: {
    method: 'post',
    path: '/api/next-term',
    summary: 'Make next term’s courses from this term’s and plan what comes along',
    may: 'keep courses',
    body: NextTerm,
    answer: z.strictObject({
      runs: z.array(z.number()),
      leftOut: z.array(z.strictObject({ course: z.number(), reason: z.string() })),
    }),
  },
} as const satisfies Routes
