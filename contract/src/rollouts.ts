import {
  carryKinds,
  decisionWords,
  Key,
  type Consequence,
  type PlanStep,
  type Proof,
  type ShapeLine,
} from '@wickerframe/core'
import { z } from 'zod'

const CourseId = z.number().int().positive()
const Restore = z.strictObject({
  fixedText: z.boolean().default(false),
  missingParts: z.boolean().default(false),
})
const SelectionOf = z.strictObject({
  parts: z.array(Key).max(400).default([]),
  blocks: z
    .array(
      z
        .string()
        .max(170)
        .regex(/^[^/]+\/[^/]+$/, 'PART/BLOCK'),
    )
    .max(400)
    .default([]),
})

/** What a rollout is asked to do, whatever the courses. */
export const RolloutOrder = z.discriminatedUnion('mode', [
  z.strictObject({
    mode: z.literal('version'),
    template: Key,
    version: z.number().int().min(1),
    only: SelectionOf.nullable().default(null).describe('Only these parts and blocks'),
    except: z.array(Key).max(400).default([]).describe('Parts left as they are'),
    restore: Restore.default({ fixedText: false, missingParts: false }),
    adopt: z
      .boolean()
      .default(false)
      .describe(
        'Whether courses with content of their own take part: what is there is taken as the part it is',
      ),
  }),
  z.strictObject({
    mode: z.literal('house-text'),
    houseText: Key.describe(
      'Of the library: its newest wording goes into every course that shows it',
    ),
  }),
  z.strictObject({ mode: z.literal('undo'), run: z.number().int().positive() }),
  z.strictObject({
    mode: z.literal('carry'),
    template: Key,
    version: z.number().int().min(1),
    carry: z.array(z.enum(carryKinds)).describe('What of the source course comes along'),
  }),
])
export type RolloutOrder = z.output<typeof RolloutOrder>

export const RolloutRequest = z.strictObject({
  order: RolloutOrder,
  courses: z
    .array(CourseId)
    .max(10_000)
    .default([])
    .describe(
      'Chosen courses; for an undo those to take back, all without any; for a house text all that show it without any',
    ),
  sources: z
    .array(z.strictObject({ course: CourseId, from: CourseId }))
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
        course: CourseId,
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
export const ApproveRequest = z.strictObject({
  courses: z
    .array(CourseId)
    .min(1)
    .max(10_000)
    .optional()
    .describe('All whose plan is ready without any'),
  shown: z
    .array(z.strictObject({ course: CourseId, digest: z.string().max(100) }))
    .max(10_000)
    .optional()
    .describe('Digests of the plans that were shown: refused when one of them is another by now'),
})
export const UndoRequest = z.strictObject({
  courses: z.array(CourseId).min(1).max(10_000).optional(),
})
export const StandingRulePut = z.strictObject({
  department: z.string().min(1).max(40).nullable(),
  modality: z.enum(['on-campus', 'online', 'hybrid']).nullable(),
  weeks: z.number().int().min(1).max(60).nullable(),
  template: Key,
})
export const AdoptStrengths = z.strictObject({
  version: z
    .number()
    .int()
    .min(1)
    .nullable()
    .describe('A newer version of the template it is judged by; null: its own again'),
})

/** What the plan of one course comes to. */
export interface PlanSummary {
  state: 'ready' | 'nothing-to-do' | 'left-out' | 'unusable'
  reason: string
  shape: string
  lines: ShapeLine[]
  unchanged: number
  undecided: number
  additive: boolean
  consequences: Consequence[]
  /** Of everything the plan would do; the revision of the course is not in it. */
  digest: string
}

/** Courses whose plans look alike. */
export interface ShapeGroup {
  shape: string
  summary: PlanSummary
  courses: {
    course: number
    /** Course number on the platform. */
    platformId: string
    code: string
    title: string
    classSections: string[]
    state: string
    /** The template it stands under, where the plan brings it under another. */
    leaves: string | null
    /** Of its plan. */
    digest: string
  }[]
}

/** The plan of one course, opened down to the text. */
export interface CoursePlan extends Omit<PlanSummary, 'shape' | 'lines'> {
  course: number
  code: string
  title: string
  classSections: string[]
  steps: PlanStep[]
  /** Zone in which its dates are told. */
  timeZone: string
  /** When it was read from the platform. */
  readAt: string | null
}

export interface StandingRule {
  id: number
  department: string | null
  modality: string | null
  weeks: number | null
  template: { key: string; title: string }
}
/** What the standing rules say of the courses of a term. */
export interface StandingRules {
  rules: StandingRule[]
  /** By template key, the courses exactly one template is meant for. */
  fits: { template: string; title: string; courses: number[] }[]
  none: number[]
  several: { course: number; templates: string[] }[]
}
export interface Receipt {
  course: number
  number: number
  mode: RolloutOrder['mode']
  template: string | null
  version: number | null
  at: string
  by: string
  run: number
  counts: Record<string, number>
  undoneBy: number | null
  /** The course read again and held against the plan; null where nothing was sent, or it was before that was done. */
  proof: Proof | null
}
export interface Message {
  id: number
  run: number | null
  at: string
  subject: string
  body: string
  read: boolean
}
export interface Rehearsal {
  id: string
  course: number
  address: string
  createdAt: string
}

export const CourseStatus = z.enum(['preparing', 'teaching', 'merged', 'set-aside', 'cancelled'])
/** Digest of the preview an act was decided on: the act is refused when that has changed. */
const Shown = z.string().max(100).nullable().default(null)
export const MergeCourse = z.strictObject({
  into: CourseId,
  dry: z.boolean().default(false),
  shown: Shown,
})
export const UnmergeCourse = z.strictObject({ dry: z.boolean().default(false), shown: Shown })
export const NextTerm = z.strictObject({
  term: z.string().min(1).max(60),
  courses: z.array(CourseId).min(1).max(5000),
  carry: z.array(z.enum(carryKinds)).max(20),
})
export interface MadeCourses {
  dry: boolean
  /** Of all that the preview was made from. */
  digest: string
  /** How the file was read, where that wants telling. */
  note: string
  made: { platformId: string; name: string; classSections: string[] }[]
  errors: { line: number; column: string; found: string; reason: string }[]
}
export interface CourseValuesReport {
  dry: boolean
  digest: string
  note: string
  courses: number
  changes: { course: string; what: string; from: string; to: string }[]
  errors: MadeCourses['errors']
}
export interface MergeReport {
  dry: boolean
  digest: string
  consequences: string[]
}
