import { z } from 'zod'
import { Key } from '@wickerframe/core'
import { Done, type Routes } from './asked.ts'

export const StandingRulePut = z.strictObject({
  department: z.string().min(1).max(40).nullable(),
  modality: z.enum(['on-campus', 'online', 'hybrid']).nullable(),
  weeks: z.number().int().min(1).max(60).nullable(),
  template: Key,
})
export const StandingRule = z.strictObject({
  id: z.number(),
  department: z.string().nullable(),
  modality: z.string().nullable(),
  weeks: z.number().nullable(),
  template: z.strictObject({ key: z.string(), title: z.string() }),
})
export type StandingRule = z.output<typeof StandingRule>
/** What the standing rules say of the courses of a term. */
export const StandingRules = z.strictObject({
  rules: z.array(StandingRule),

  /** By template key, the courses exactly one template is meant for. */
  fits: z.array(
    z.strictObject({ template: z.string(), title: z.string(), courses: z.array(z.number()) }),
  ),
  none: z.array(z.number()),
  several: z.array(z.strictObject({ course: z.number(), templates: z.array(z.string()) })),
})
export type StandingRules = z.output<typeof StandingRules>

export const standingRuleRoutes = {
  listStandingRules: {
    method: 'get',
    path: '/api/standing-rules',
    summary: 'Which template is meant for which courses',
    may: 'see college',
    answer: StandingRules,
  },
  addStandingRule: {
    method: 'post',
    path: '/api/standing-rules',
    summary: 'Add a standing rule',
    may: 'roll out',
    body: StandingRulePut,
    answer: z.strictObject({ rule: z.number() }),
  },
  removeStandingRule: {
    method: 'post',
    path: '/api/standing-rules/:rule/remove',
    summary: 'Remove a standing rule',
    may: 'roll out',
    answer: Done,
  },
} as const satisfies Routes
