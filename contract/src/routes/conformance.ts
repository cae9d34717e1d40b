import { z } from 'zod'
import { CheckResult, MendAction, PlainDate, Strength, WeaveGroup } from '@wickerframe/core'
import { AsOf, type Routes } from './asked.ts'
import { CourseSummary } from './courses.ts'

/** What a course is named by wherever one stands among others. */
export const NamedCourse = CourseSummary.pick({
  id: true,
  platformId: true,
  code: true,
  title: true,
  classSections: true,
})
export type NamedCourse = z.output<typeof NamedCourse>

/** A course with whoever must act in it. */
export const CourseLine = NamedCourse.extend({ owner: z.string().describe('Name; empty: nobody') })
export type CourseLine = z.output<typeof CourseLine>

/** A thing to mend first, with the first of the courses in which it stands. */
export const MendFirstAction = MendAction.omit({ courses: true, owners: true }).extend({
  count: z.number().describe('Courses in which it stands'),
  people: z.number().describe('People whose move it is'),
  courses: z.array(NamedCourse),
})
export type MendFirstAction = z.output<typeof MendFirstAction>

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

  /** Courses that are shown as they were, until they are checked again after a waiver for many. */
  checkedAgain: z.number(),
  mendFirst: z.array(MendFirstAction),
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
      fingerprints: z.array(z.string()).describe('Of its open places there'),
      title: z.string(),
      strength: Strength,
      message: z.string(),
      evidence: z.array(z.string()),
      places: z.number(),
    }),
  ),
})
export type CrossingEvidence = z.output<typeof CrossingEvidence>

/** What falls due over all courses, day by day. */
export const Ahead = z.strictObject({
  days: z.array(
    z.strictObject({
      on: PlainDate,
      musts: z.number(),
      count: z.number().describe('Courses in which something falls due'),
      courses: z.array(NamedCourse).describe('The first of them, those with most first'),
      rules: z.array(z.strictObject({ title: z.string(), musts: z.number() })),
    }),
  ),
  unchecked: z.number().describe('Courses that are not judged as of today'),
})
export type Ahead = z.output<typeof Ahead>

/** Changes whenever a course is told anew: whoever shows how courses stand asks for it, and reads again when it is another. */
export const ChecksPulse = z.strictObject({ pulse: z.string() })

export const conformanceRoutes = {
  checksPulse: {
    method: 'get',
    path: '/api/checks/pulse',
    summary: 'What changes whenever a course is told anew',
    may: 'see college',
    answer: ChecksPulse,
  },
  conformance: {
    method: 'get',
    path: '/api/conformance',
    summary: 'The weave over all courses as of a date',
    may: 'see college',
    query: AsOf,
    answer: Conformance,
  },
  ahead: {
    method: 'get',
    path: '/api/conformance/ahead',
    summary: 'What falls due in the next four weeks, by day',
    may: 'see college',
    answer: Ahead,
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
} as const satisfies Routes
