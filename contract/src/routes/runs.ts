import { z } from 'zod'
import { RowId } from '../pathParameters.ts'
import { eventStream } from '../route.ts'
import { Done, type Routes } from './asked.ts'
import { ProposedRename } from './names.ts'
import { PlanSummary, RolloutOrder } from './plan.ts'

export const taskStates = [
  'to-plan',
  'planned',
  'waiting',
  'at-work',
  'sent',
  'held',
  'done',
  'failed',
  'cancelled',
] as const
export type TaskState = (typeof taskStates)[number]
export const RunTask = z.strictObject({
  id: z.number(),
  course: z.number(),

  /** Course number on the platform. */
  platformId: z.string(),
  code: z.string(),
  title: z.string(),
  classSections: z.array(z.string()),
  state: z.enum(taskStates),
  attempts: z.number(),
  message: z.string(),
  finishedAt: z.string().nullable(),

  /** What a run of renames gives this course. */
  renames: z.array(ProposedRename),

  /** What a run of mends is to mend in this course, in words. */
  mends: z.array(z.strictObject({ message: z.string(), changes: z.array(z.string()) })),

  /** What its plan comes to, in a rollout. */
  plan: z
    .strictObject({ state: PlanSummary.shape['state'], reason: z.string(), undecided: z.number() })
    .nullable(),
})
export type RunTask = z.output<typeof RunTask>
export const RunSummary = z.strictObject({
  id: z.number(),
  kind: z.enum(['rollout', 'check', 'recheck', 'renames', 'mends', 'answers', 'impact']),
  state: z.enum(['planning', 'planned', 'running', 'paused', 'done', 'cancelled']),
  title: z.string(),
  by: z.string(),
  createdAt: z.string(),
  finishedAt: z.string().nullable(),
  counts: z.record(z.enum(taskStates), z.number()),
  asOf: z.string().nullable(),
})
export type RunSummary = z.output<typeof RunSummary>
export const RunDetail = RunSummary.extend({
  /** What a rollout was asked to do; null for other runs. */
  order: RolloutOrder.nullable(),
  rule: z.enum(['keep', 'take']).nullable(),
  standing: z.boolean(),
  tasks: z.array(RunTask),

  /** What courses that were tried and are to be tried again wait for: the most frequent of it; null where none waits. */
  waitsFor: z.strictObject({ message: z.string(), courses: z.number() }).nullable(),

  /** Courses a second over the last stretch, and seconds left at that speed; null before there is a speed. */
  perSecond: z.number().nullable(),
  secondsLeft: z.number().nullable(),
})
export type RunDetail = z.output<typeof RunDetail>
export const ApproveRequest = z.strictObject({
  courses: z
    .array(RowId)
    .min(1)
    .max(10_000)
    .optional()
    .describe('All whose plan is ready without any'),
  shown: z
    .array(z.strictObject({ course: RowId, digest: z.string().max(100) }))
    .max(10_000)
    .optional()
    .describe('Digests of the plans that were shown: refused when one of them is another by now'),
})

export const runRoutes = {
  readRun: {
    method: 'get',
    path: '/api/runs/:run',
    summary:
      'A run with the state of each course; an instructor sees runs of their own courses only',
    may: 'see courses',
    answer: RunDetail,
  },
  followRun: {
    method: 'get',
    path: '/api/runs/:run/events',
    summary: 'Progress of a run, as server-sent events',
    may: 'see courses',
    answer: eventStream,
  },
  approveRun: {
    method: 'post',
    path: '/api/runs/:run/approve',
    summary: 'Approve a planned run, or plans that came out differently; all or some courses',
    may: 'roll out',
    body: ApproveRequest,
    answer: Done,
  },
  pauseRun: {
    method: 'post',
    path: '/api/runs/:run/pause',
    summary: 'Stop claiming further courses',
    may: 'roll out',
    answer: Done,
  },
  resumeRun: {
    method: 'post',
    path: '/api/runs/:run/resume',
    summary: 'Go on',
    may: 'roll out',
    answer: Done,
  },
  cancelRun: {
    method: 'post',
    path: '/api/runs/:run/cancel',
    summary: 'Leave out what has not begun',
    may: 'roll out',
    answer: Done,
  },
  retryRun: {
    method: 'post',
    path: '/api/runs/:run/retry',
    summary: 'Try failed courses again',
    may: 'roll out',
    answer: Done,
  },
} as const satisfies Routes
