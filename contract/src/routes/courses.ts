import { z } from 'zod'
import { courseRoles } from '../capabilities.ts'
import { CheckResult, Counts, Course, Facts, Key, Template } from '@wickerframe/core'
import { AsOf, Done, type Routes } from './asked.ts'
import { CourseCare } from './care.ts'
import { Receipt } from './rollouts.ts'

export const courseStates = [
  'shell',
  'deployed',
  'other-content',
  'checked-only',
  'not-read',
] as const
export type CourseState = (typeof courseStates)[number]
export const CourseSummary = z.strictObject({
  id: z.number(),
  platformId: z.string(),
  code: z.string(),
  title: z.string(),
  term: z.string(),
  department: z.string(),
  modality: Facts.shape['modality'],
  weeks: z.number(),
  status: z.string(),
  classSections: z.array(z.string()),
  classSectionKind: z.enum(['own', 'shared']),
  instructors: z.array(z.strictObject({ name: z.string(), email: z.string() })),
  assistants: z.array(z.strictObject({ name: z.string(), email: z.string() })),
  owner: z
    .string()
    .nullable()
    .describe('E-mail of the person who must act; null: nobody teaches it'),
  state: z.enum(courseStates),
  template: z
    .strictObject({ key: z.string(), title: z.string(), version: z.number(), newest: z.number() })
    .nullable(),
  readAt: z.string().nullable(),
  check: z
    .strictObject({ asOf: z.string(), readiness: CheckResult.shape['readiness'], counts: Counts })
    .nullable(),
})
export type CourseSummary = z.output<typeof CourseSummary>
export const CourseDetail = CourseSummary.extend({
  facts: Facts,
  templateDocument: Template.nullable(),
  snapshot: Course.nullable(),
  result: CheckResult.nullable(),
  history: z.array(Receipt),

  /** The course it was merged into, and those merged into it. */
  mergedInto: z.strictObject({ id: z.number(), name: z.string() }).nullable(),
  mergedHere: z.array(z.strictObject({ id: z.number(), name: z.string() })),

  /** A newer version whose strengths and parameters it is judged by, or null. */
  strengthsVersion: z.number().nullable(),
  care: CourseCare,

  /** Those of the asker’s roles that are about it. */
  roles: z.array(z.enum(courseRoles)),
})
export type CourseDetail = z.output<typeof CourseDetail>
export const PutUnder = z.strictObject({ template: Key, version: z.number().int().min(1) })
export const AdoptStrengths = z.strictObject({
  version: z
    .number()
    .int()
    .min(1)
    .nullable()
    .describe('A newer version of the template it is judged by; null: its own again'),
})

export const courseRoutes = {
  listCourses: {
    method: 'get',
    path: '/api/courses',
    summary: 'Courses',
    may: 'see courses',
    query: AsOf,
    answer: z.array(CourseSummary),
  },
  readCourse: {
    method: 'get',
    path: '/api/courses/:course',
    summary: 'A course with its snapshot and check',
    may: 'see courses',
    query: AsOf,
    answer: CourseDetail,
  },
  factsOfCourse: {
    method: 'get',
    path: '/api/courses/:course/facts',
    summary: 'What is known of a course besides its content',
    may: 'see courses',
    answer: Facts,
  },
  putUnderVersion: {
    method: 'post',
    path: '/api/courses/:course/version',
    summary: 'Put a course under a version for checking only',
    may: 'keep courses',
    body: PutUnder,
    answer: Done,
  },
  adoptStrengths: {
    method: 'post',
    path: '/api/courses/:course/strengths',
    summary:
      'Judge a course by strengths and parameters of a newer version, without writing to the platform',
    may: 'keep courses',
    body: AdoptStrengths,
    answer: Done,
  },
} as const satisfies Routes
