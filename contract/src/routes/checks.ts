import { z } from 'zod'
import { CheckResult, MendAction, PlainDate, Strength, Term, WeaveGroup } from '@wickerframe/core'
import { RowId } from '../pathParameters.ts'
import { AsOf, Begun, type Routes } from './asked.ts'
import { CourseSummary } from './courses.ts'
import { RunSummary } from './runs.ts'

export const CheckRequest = z.strictObject({
  courses: z.array(RowId).min(1).max(10_000).optional(),
  asOf: PlainDate.optional(),
})
/** A course of the weave: no more of it than is shown there, for there may be thousands. */
export const ConformanceRow = z.strictObject({
  id: z.number(),
  platformId: z.string(),
  code: z.string(),
  title: z.string(),
  classSections: z.array(z.string()),
  department: z.string(),
  weeks: z.number(),
  /** What the template is called; empty: none. */
  template: z.string(),
  /** The name of who must act; empty: nobody teaches it. */
  owner: z.string(),
  readiness: CheckResult.shape['readiness'],
  openMusts: z.number(),
  openShoulds: z.number(),
  /** A letter for each column of the weave, in their order. */
  strands: z.string(),
})
export type ConformanceRow = z.output<typeof ConformanceRow>
export const Conformance = z.strictObject({
  asOf: z.string(),
  groups: z.array(WeaveGroup),
  rows: z.array(ConformanceRow),

  /** Courses not judged as of this date yet. */
  unchecked: z.number(),
  mendFirst: z.array(MendAction),
  totals: z.strictObject({
    courses: z.number(),
    ready: z.number(),
    openMusts: z.number(),
    openShoulds: z.number(),
    cannotTell: z.number(),
  }),
})
export type Conformance = z.output<typeof Conformance>
/** What is open at one crossing of the weave. */
export const CrossingEvidence = z.strictObject({
  findings: z.array(
    z.strictObject({
      fingerprint: z.string().describe('Of its first place there'),
      title: z.string(),
      strength: Strength,
      message: z.string(),
      evidence: z.array(z.string()),
      places: z.number(),
    }),
  ),
})
export type CrossingEvidence = z.output<typeof CrossingEvidence>
export const TodayView = z.strictObject({
  today: z.string(),
  term: Term,
  week: z.number().nullable(),
  weeks: z.number(),
  notReady: z.array(z.strictObject({ course: CourseSummary, first: z.string() })),
  notBegun: z.array(CourseSummary),
  noTemplate: z.array(CourseSummary),
  duplicates: z.array(
    z.strictObject({ classSection: z.string(), courses: z.array(CourseSummary) }),
  ),
  failedRollouts: z.array(RunSummary),
  mendFirst: z.array(MendAction),
  comingDue: z.array(
    z.strictObject({ course: CourseSummary, count: z.number(), first: z.string() }),
  ),
  checkedAsOf: z.string().nullable(),
})
export type TodayView = z.output<typeof TodayView>

export const checkRoutes = {
  today: {
    method: 'get',
    path: '/api/today',
    summary: 'What needs the designer now',
    may: 'see college',
    answer: TodayView,
  },
  conformance: {
    method: 'get',
    path: '/api/conformance',
    summary: 'The weave over all courses as of a date',
    may: 'see college',
    query: AsOf,
    answer: Conformance,
  },
  crossing: {
    method: 'get',
    path: '/api/courses/:course/crossing',
    summary: 'What is open at one crossing of the weave',
    may: 'see courses',
    query: AsOf.extend({
      column: z.string().min(1).max(300).describe('`week:2/overview`, or the group `week:2`'),
    }),
    answer: CrossingEvidence,
  },
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
