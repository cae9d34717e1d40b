import { z } from 'zod'
import { MendTarget } from '@wickerframe/core'
import { Begun, Fingerprint, large, type Routes } from './asked.ts'

/** Chosen mends: each named by the place's fingerprint, with the evidence that was seen when it was chosen. */
export const ChosenMend = z.strictObject({
  fingerprint: Fingerprint,
  digest: z.string().min(1).max(100),
})
export type ChosenMend = z.output<typeof ChosenMend>
export const MendRequest = z.strictObject({
  courses: z
    .array(
      z.strictObject({
        course: z.number().int().positive(),
        mends: z.array(ChosenMend).min(1).max(2000),
      }),
    )
    .min(1)
    .max(10_000),
})
export const MendOwnRequest = z.strictObject({ mends: z.array(ChosenMend).min(1).max(2000) })
/** What Wickerframe could mend by itself under one rule, in all courses. */
export const MendableRule = z.strictObject({
  rule: z.string(),
  title: z.string(),
  places: z.number(),
  courses: z.array(
    z.strictObject({
      course: z.number(),

      /** Course number on the platform. */
      platformId: z.string(),
      code: z.string(),
      title: z.string(),
      classSections: z.array(z.string()),
      mends: z.array(ChosenMend.extend({ message: z.string() })),
    }),
  ),
})
export type MendableRule = z.output<typeof MendableRule>

export const mendRoutes = {
  mendCourse: {
    method: 'post',
    path: '/api/courses/:course/mends',
    summary: 'Apply chosen mends to one course',
    may: 'look after course',
    body: MendOwnRequest,
    answer: Begun,
  },
  planMends: {
    method: 'post',
    path: '/api/mends',
    summary: 'Plan chosen mends in many courses; nothing is written until the plan is approved',
    may: 'mend courses',
    body: MendRequest,
    answer: Begun,
    limits: large,
  },
  planMendsOf: {
    method: 'post',
    path: '/api/mends/of-one-thing',
    summary:
      'Plan every mend of one thing to mend first, in all courses; nothing is written until the plan is approved',
    may: 'mend courses',
    body: MendTarget,
    answer: Begun,
  },
  listMends: {
    method: 'get',
    path: '/api/mends',
    summary: 'What Wickerframe could mend by itself in all courses, by rule',
    may: 'mend courses',
    query: z.strictObject({ rule: z.string().max(80).optional().describe('For one rule') }),
    answer: z.array(MendableRule),
  },
} as const satisfies Routes
