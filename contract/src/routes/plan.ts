import { z } from 'zod'
import { carryKinds, Consequence, Key, ShapeLine } from '@wickerframe/core'

export const Restore = z.strictObject({
  fixedText: z.boolean().default(false),
  missingParts: z.boolean().default(false),
})
export const SelectionOf = z.strictObject({
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

/** What the plan of one course comes to. */
export const PlanSummary = z.strictObject({
  state: z.enum(['ready', 'nothing-to-do', 'left-out', 'unusable']),
  reason: z.string(),
  shape: z.string(),
  lines: z.array(ShapeLine),
  unchanged: z.number(),
  undecided: z.number(),
  additive: z.boolean(),
  consequences: z.array(Consequence),

  /** Of everything the plan would do; the revision of the course is not in it. */
  digest: z.string(),
})
export type PlanSummary = z.output<typeof PlanSummary>
