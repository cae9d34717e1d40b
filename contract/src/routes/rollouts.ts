import { z } from 'zod'
import { decisionWords, Key, PlanStep, Proof } from '@wickerframe/core'
import { RowId } from '../pathParameters.ts'
import { Begun, Done, type Routes } from './asked.ts'
import { PlanSummary, Restore, RolloutOrder, SelectionOf } from './plan.ts'
import { RunSummary } from './runs.ts'

export const RolloutRequest = z.strictObject({
  order: RolloutOrder,
  courses: z
    .array(RowId)
    .max(10_000)
    .default([])
    .describe(
      'Chosen courses; for an undo those to take back, all without any; for a house text all that show it without any',
    ),
  sources: z
    .array(z.strictObject({ course: RowId, from: RowId }))
    .max(10_000)
    .default([])
    .describe('For carry: from which course each comes'),
  rule: z
    .enum(['keep', 'take'])
    .nullable()
    .default(null)
    .describe('What is done about every conflict nobody decided on by itself'),
  standing: z
    .boolean()
    .default(false)
    .describe(
      'Standing approval: a plan that only adds may run even if it came out differently when the course changed meanwhile',
    ),
})
export type RolloutRequest = z.output<typeof RolloutRequest>

export const DecideRequest = z.strictObject({
  rule: z.enum(['keep', 'take']).nullable().optional(),
  decisions: z
    .array(
      z.strictObject({
        course: RowId,
        instance: z.string().max(200),
        field: z.string().max(200),
        decision: z.enum(decisionWords).nullable(),
      }),
    )
    .max(10_000)
    .default([]),
  except: z.array(Key).max(400).optional(),
  only: SelectionOf.nullable().optional(),
  restore: Restore.optional(),
})
/** What somebody decided about a rollout before it runs. */
export type Decided = z.input<typeof DecideRequest>
export const UndoRequest = z.strictObject({ courses: z.array(RowId).min(1).max(10_000).optional() })
/** Courses whose plans look alike. */
export const ShapeGroup = z.strictObject({
  shape: z.string(),
  summary: PlanSummary,
  courses: z.array(
    z.strictObject({
      course: z.number(),

      /** Course number on the platform. */
      platformId: z.string(),
      code: z.string(),
      title: z.string(),
      classSections: z.array(z.string()),
      state: z.string(),

      /** The template it stands under, where the plan brings it under another. */
      leaves: z.string().nullable(),

      /** Of its plan. */
      digest: z.string(),
    }),
  ),
})
export type ShapeGroup = z.output<typeof ShapeGroup>

/** The plan of one course, opened down to the text. */
export const CoursePlan = PlanSummary.omit({ shape: true, lines: true }).extend({
  course: z.number(),
  code: z.string(),
  title: z.string(),
  classSections: z.array(z.string()),
  steps: z.array(PlanStep),

  /** Zone in which its dates are told. */
  timeZone: z.string(),

  /** When it was read from the platform. */
  readAt: z.string().nullable(),
})
export type CoursePlan = z.output<typeof CoursePlan>

export const Receipt = z.strictObject({
  course: z.number(),
  number: z.number(),
  mode: z.enum(['version', 'house-text', 'undo', 'carry']),
  template: z.string().nullable(),
  version: z.number().nullable(),
  at: z.string(),
  by: z.string(),
  run: z.number(),
  counts: z.record(z.string(), z.number()),
  undoneBy: z.number().nullable(),

  /** The course read again and held against the plan; null where nothing was sent, or it was before that was done. */
  proof: Proof.nullable(),
})
export type Receipt = z.output<typeof Receipt>
export const Rehearsal = z.strictObject({
  id: z.string(),
  course: z.number(),
  address: z.string(),
  createdAt: z.string(),
})
export type Rehearsal = z.output<typeof Rehearsal>

export const rolloutRoutes = {
  listRollouts: {
    method: 'get',
    path: '/api/rollouts',
    summary: 'Rollouts, renames and mends',
    may: 'see college',
    answer: z.array(RunSummary),
  },
  planRollout: {
    method: 'post',
    path: '/api/rollouts',
    summary: 'Plan a rollout; nothing is written until its plans are approved',
    may: 'roll out',
    body: RolloutRequest,
    answer: Begun,
  },
  rolloutShapes: {
    method: 'get',
    path: '/api/rollouts/:run/shapes',
    summary: 'The plans of a rollout, those that look alike together',
    may: 'see college',
    answer: z.array(ShapeGroup),
  },
  coursePlan: {
    method: 'get',
    path: '/api/rollouts/:run/courses/:course',
    summary: 'The plan for one course, down to the text',
    may: 'see college',
    answer: CoursePlan,
  },
  decideConflicts: {
    method: 'post',
    path: '/api/rollouts/:run/decisions',
    summary: 'Decide on conflicts, or on what is left out; what it touches is planned again',
    may: 'roll out',
    body: DecideRequest,
    answer: Done,
  },
  rehearse: {
    method: 'post',
    path: '/api/rollouts/:run/courses/:course/rehearse',
    summary: 'Carry the plan of a course out on a copy of it',
    may: 'roll out',
    answer: Rehearsal,
  },
  undoRollout: {
    method: 'post',
    path: '/api/rollouts/:run/undo',
    summary: 'Plan to take a rollout back, for all or some courses',
    may: 'roll out',
    body: UndoRequest,
    answer: Begun,
  },
  listRehearsals: {
    method: 'get',
    path: '/api/rehearsals',
    summary: 'Copies of courses on which plans are rehearsed',
    may: 'roll out',
    answer: z.array(Rehearsal),
  },
  discardRehearsal: {
    method: 'post',
    path: '/api/rehearsals/:rehearsal/discard',
    summary: 'Throw a rehearsal away',
    may: 'roll out',
    answer: Done,
  },
} as const satisfies Routes
