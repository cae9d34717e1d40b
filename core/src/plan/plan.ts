import { z } from 'zod'
import type { Change, Course } from '../course/index.ts'
import type { ExpectedCourse } from '../expand/index.ts'
import type { Base } from './base.ts'
import type { Bodies } from './bodies.ts'
import type { Consequence } from './consequence.ts'
import { FieldStep, type Decisions } from './mergeCase.ts'
import type { NextBase } from './nextBase.ts'

/** Which parts, and which single blocks of their pages, a plan is about. */
export interface Selection {
  /** Part keys; a module's key means everything in it. `course`: the fields of the course itself. */
  parts: readonly string[]
  /** Blocks as `PART/BLOCK`. */
  blocks: readonly string[]
}

export interface PlanInput {
  expected: ExpectedCourse
  course: Course
  base: Base
  bodies: Bodies
  /** Which revisions of house texts are written, `YYYY-MM-DD`. */
  onDate: string
  /** Only these; everything else stays as it was. */
  only?: Selection | null
  /** Keys of parts that are left as they are, with everything in them. */
  except?: readonly string[]
  /** What instructors may have removed or altered and is to be put back. */
  restore?: { fixedText?: boolean; missingParts?: boolean }
  decisions?: Decisions
  /** For a course with content of its own: which expected part is which item or module there. What has none is added. */
  adopt?: ReadonlyMap<string, string>
}

/** What would happen to one part, in words people read. */
export const PlanStep = z.strictObject({
  does: z.enum(['create', 'change', 'move', 'adopt', 'keep', 'remove', 'conflict', 'set']),
  instance: z.string(),
  part: z.string(),
  kind: z.string(),
  name: z.string(),

  /** Name of the module it goes into, or null. */
  into: z.string().nullable(),
  opensAt: z.string().nullable(),
  dueAt: z.string().nullable(),
  reason: z.string(),

  /** Why, where something is decided by it; the reason says the same in words. */
  because: z.literal('student-work').optional(),
  fields: z.array(FieldStep),
})
export type PlanStep = z.output<typeof PlanStep>

export type Plan =
  | {
      state: 'ready' | 'nothing-to-do'
      steps: PlanStep[]
      /** How many parts stay as they are, with nothing to tell of them. */
      unchanged: number
      changes: Change[]
      /** Conflicts nobody has decided on; they are left as they are. */
      undecided: number
      /** Whether it only adds, so that it may run under a standing approval. */
      additive: boolean
      consequences: Consequence[]
      next: NextBase
      /** Instances it creates. */
      creates: string[]
    }
  /** Left out until somebody decides. */
  | { state: 'left-out'; reason: string }
  | UnusablePlan

/** What would have to be known to plan is missing, so nothing is planned. */
export interface UnusablePlan {
  state: 'unusable'
  code: 'missing-bodies'
  /** Ids of the bodies that are missing. */
  missing: string[]
  reason: string
}

/** A plan that says what is missing; null when nothing is. */
export const unusableWithout = (missing: readonly string[]): UnusablePlan | null =>
  missing.length === 0
    ? null
    : {
        state: 'unusable',
        code: 'missing-bodies',
        missing: [...missing],
        reason: `${missing.length === 1 ? 'a page that was' : `${missing.length} pages that were`} deployed here ${missing.length === 1 ? 'is' : 'are'} not kept any more, so it cannot be told what was written since; nothing is changed`,
      }

/** A plan that says what it would do. */
export type WorkedOutPlan = Extract<Plan, { state: 'ready' | 'nothing-to-do' }>
export const isWorkedOut = (plan: Plan): plan is WorkedOutPlan =>
  plan.state === 'ready' || plan.state === 'nothing-to-do'
