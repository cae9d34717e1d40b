import { z } from 'zod'
import { canonicalJson } from '../document/index.ts'
import type { FieldBase } from './base.ts'

/**
 * What a three-way merge says of one value (base, present, wanted): nobody changed it; the template did; the instructor
 * did; both to the same; both, differently.
 */
export type MergeCase = 'same' | 'change' | 'keep' | 'agree' | 'conflict'

export const sameValue = (a: unknown, b: unknown): boolean =>
  a === b || canonicalJson(a ?? null) === canonicalJson(b ?? null)

/** @param base null where nothing is known of an earlier deployment: then what differs is a conflict */
export const mergeCaseOf = (
  base: FieldBase | null,
  present: unknown,
  wanted: unknown,
): MergeCase => {
  const templateSame = base !== null && sameValue(base.sent, wanted)
  if (sameValue(present, wanted)) return templateSame ? 'same' : 'agree'
  if (base === null) return 'conflict'
  const untouched = sameValue(base.echo, present)
  if (templateSame) return untouched ? 'same' : 'keep'
  return untouched ? 'change' : 'conflict'
}

/** What somebody decided where template and instructor both changed something. */
export const decisionWords = ['keep', 'take', 'both'] as const
export const Decision = z.enum(decisionWords)
export type Decision = z.output<typeof Decision>

/** Decisions of a plan: a rule for all conflicts, and single ones that outrank it, by `INSTANCE/FIELD`. */
export interface Decisions {
  rule: 'keep' | 'take' | null
  single: Readonly<Record<string, Decision>>
}
export const noDecisions: Decisions = { rule: null, single: {} }

/** How one field of one part differs, and what the plan does about it. */
export const FieldStep = z.strictObject({
  field: z
    .string()
    .describe('Name of the field; a block is block:KEY, a question question:KEY; a place is place'),
  does: z.enum(['change', 'keep', 'agree', 'conflict', 'restore', 'leave']),

  /** Values; of a block or a question its HTML. null: nothing. */
  base: z.unknown().describe('As it was last deployed; null: not at all'),
  present: z.unknown().describe('As it stands; null: not at all'),
  wanted: z.unknown().describe('As the template wants it'),
  result: z.unknown().describe('As it will be once the plan was carried out'),
  decided: Decision.nullable(),
  reason: z.string(),

  /** Why, where something is decided by it; the reason says the same in words. */
  because: z.literal('student-work').optional(),
})
export type FieldStep = z.output<typeof FieldStep>

export const decisionFor = (
  decisions: Decisions,
  instance: string,
  field: string,
): Decision | null => decisions.single[`${instance}/${field}`] ?? decisions.rule
