import { z } from 'zod'
import {
  EditDay,
  EditsOfDay,
  FindingSpell,
  PlainDate,
  ReadinessChange,
  ReadinessDay,
  RulesDocument,
} from '@wickerframe/core'
import { bandings } from '../bands.ts'
import type { Routes } from './asked.ts'
import { CourseLine } from './conformance.ts'

/** How the courses of the term stood day by day. */
export const CollegeHistory = z.strictObject({
  from: PlainDate,
  until: PlainDate,
  college: z.array(ReadinessDay),
  bands: z.array(
    z.strictObject({
      title: z.string(),
      courses: z.number(),
      days: z.array(ReadinessDay),
      edits: z.number().describe('What people edited in all these days'),
    }),
  ),
  /** What people edited since something was deployed, day by day. */
  edits: z.array(EditsOfDay),
  /** Deployed courses, and those of them in which nothing that is asked of the instructor was filled in. */
  deployed: z.number(),
  notBegun: z.strictObject({ count: z.number(), lines: z.array(CourseLine).max(60) }),
  /** Days from opening to ready, of the courses that became ready, the fewest first. */
  daysToReady: z.array(z.number()),
  /** Courses whose opening has come and that never were ready. */
  neverReady: z.number(),
})
export type CollegeHistory = z.output<typeof CollegeHistory>

/** How one course stood, and which findings came, went and came back in it. */
export const CourseStanding = z.strictObject({
  opening: PlainDate,
  changes: z.array(ReadinessChange),
  daysToReady: z.number().nullable(),
  /** Whether something was deployed to it: only then edits are kept. */
  deployed: z.boolean(),
  edits: z.array(EditDay),
  spells: z.array(FindingSpell),
})
export type CourseStanding = z.output<typeof CourseStanding>

/** How a rule fared: how often it was found, and what came of that. */
export const RuleUse = RulesDocument.shape.rules.element
  .pick({ id: true, group: true, title: true, why: true, strength: true })
  .extend({
    parameters: z
      .record(z.string(), z.unknown())
      .describe('JSON Schema of its parameters, with their defaults'),
    found: z.number().describe('Places, each time it came'),
    courses: z.number().describe('Courses in which it was found'),
    planned: z.number().describe('Places mended by a plan of mends'),
    otherwise: z.number().describe('Places gone otherwise: by people, or by a rollout'),
    waived: z.number().describe('Waivers of it in force, in single courses and in many'),
    answered: z.number().describe('Places answered for with “it is right so”'),
    open: z.number().describe('Places open now'),
    openLong: z.number().describe('Of those, open for a fortnight and longer'),
  })
export type RuleUse = z.output<typeof RuleUse>

export const historyRoutes = {
  ruleUse: {
    method: 'get',
    path: '/api/rules/use',
    summary: 'How each rule fared: how often it was found, mended, waived, answered for, left open',
    may: 'see college',
    answer: z.array(RuleUse),
  },
  collegeHistory: {
    method: 'get',
    path: '/api/history',
    summary: 'How courses stood day by day, in all and by bands of the weave',
    may: 'see college',
    query: z.strictObject({ by: z.enum(bandings).default('department') }),
    answer: CollegeHistory,
  },
  courseStanding: {
    method: 'get',
    path: '/api/courses/:course/standing',
    summary: 'How a course stood day by day, and when its findings came and went',
    may: 'see courses',
    answer: CourseStanding,
  },
} as const satisfies Routes
