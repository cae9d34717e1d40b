import { z } from 'zod'
import { PlainDate } from '@wickerframe/core'
import { RowId } from '../pathParameters.ts'
import { Begun, type Routes } from './asked.ts'

export const CheckRequest = z.strictObject({
  courses: z.array(RowId).min(1).max(10_000).optional(),
  asOf: PlainDate.optional(),
})

export const checkRoutes = {
  checkCourses: {
    method: 'post',
    path: '/api/checks',
    summary: 'Check courses as of a date',
    may: 'check courses',
    body: CheckRequest,
    answer: Begun,
  },
  checkCourse: {
    method: 'post',
    path: '/api/courses/:course/check',
    summary: 'Check one course again',
    may: 'look after course',
    body: CheckRequest.pick({ asOf: true }),
    answer: Begun,
  },
} as const satisfies Routes
