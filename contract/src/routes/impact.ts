import { z } from 'zod'
import { ImpactSum } from '@wickerframe/core'
import { Begun, type Routes } from './asked.ts'
import { NamedCourse } from './conformance.ts'
import { RunSummary } from './runs.ts'

const Named = z.strictObject({
  count: z.number(),
  courses: z.array(NamedCourse).describe('The first of them'),
})

/** What a draft would change for the courses under its template. */
export const Impact = ImpactSum.omit({
  becomeReady: true,
  stopBeingReady: true,
  doNotFit: true,
}).extend({
  run: z.number(),
  state: RunSummary.shape['state'],
  revision: z.number().describe('Of the draft that was held against them'),
  by: z.string(),
  at: z.string(),
  all: z.number().describe('Courses it is held against'),
  done: z.number(),
  failed: z.number(),
  secondsLeft: z.number().nullable(),
  becomeReady: Named,
  stopBeingReady: Named,
  doNotFit: Named.extend({ reason: z.string().describe('Of the first; empty: there is none') }),
})
export type Impact = z.output<typeof Impact>

export const impactRoutes = {
  holdAgainstCourses: {
    method: 'post',
    path: '/api/templates/:template/impact',
    summary: 'Hold a draft against every course under its template, before it is released',
    may: 'keep templates',
    body: z.strictObject({ revision: z.number().int().min(0) }),
    answer: Begun,
  },
  readImpact: {
    method: 'get',
    path: '/api/templates/:template/impact',
    summary:
      'What the draft last held against courses would change for them, as far as it is known; null: none was',
    may: 'keep templates',
    answer: Impact.nullable(),
  },
} as const satisfies Routes
