import { z } from 'zod'
import { RowId } from '../pathParameters.ts'
import type { Routes } from './asked.ts'

export const CourseStatus = z.enum(['preparing', 'teaching', 'merged', 'set-aside', 'cancelled'])
/** Digest of the preview an act was decided on: the act is refused when that has changed. */
const Shown = z.string().max(100).nullable().default(null)
export const MergeCourse = z.strictObject({
  into: RowId,
  dry: z.boolean().default(false),
  shown: Shown,
})
export const UnmergeCourse = z.strictObject({ dry: z.boolean().default(false), shown: Shown })
export const MergeReport = z.strictObject({
  dry: z.boolean(),
  digest: z.string(),
  consequences: z.array(z.string()),
})
export type MergeReport = z.output<typeof MergeReport>

export const mergeRoutes = {
  mergeCourse: {
    method: 'post',
    path: '/api/courses/:course/into-another',
    summary: 'Merge a course into another one; dry: only say what that means',
    may: 'keep courses',
    body: MergeCourse,
    answer: MergeReport,
  },
  unmergeCourse: {
    method: 'post',
    path: '/api/courses/:course/unmerge',
    summary: 'Take a merge back; dry: only say what that means',
    may: 'keep courses',
    body: UnmergeCourse,
    answer: MergeReport,
  },
} as const satisfies Routes
