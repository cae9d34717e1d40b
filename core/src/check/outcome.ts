import { z } from 'zod'
import { Change } from '../course/index.ts'
import { Join } from '../pair/join.ts'
import { Strength } from '../template/index.ts'

/** Outcomes of a requirement as W3C EARL 1.0 has them, and one of ours: not due yet. */
export const outcomeWords = [
  'passed',
  'failed',
  'cannot-tell',
  'inapplicable',
  'untested',
  'not-due-yet',
] as const

/** Where in a course something is: names from the outside in, the part it belongs to, and the platform's id. */
export const Place = z.strictObject({
  path: z.array(z.string()),
  part: z.string().nullable(),
  instance: z.string().nullable(),
  week: z.number().nullable(),
  foundId: z.string().nullable(),
})
export type Place = z.output<typeof Place>

export const Outcome = z.strictObject({
  rule: z.string(),
  fingerprint: z
    .string()
    .describe(
      'Of rule, part and repetition (or platform id) and discriminator; never of the evidence; empty for what is met, which nobody has to speak of',
    ),
  strength: Strength,
  outcome: z.enum(outcomeWords),
  place: Place,
  reason: z.string().nullable().describe('Why it cannot be told, or when it is due'),
  toldBy: z
    .string()
    .nullable()
    .describe('Fingerprint of the finding that tells it, when another one does'),
  waivedBy: z
    .string()
    .optional()
    .describe('Id of the waiver that excuses it; it is out of the count'),
  attestedBy: z.string().optional().describe('Id of the attestation that speaks for it'),
})
export type Outcome = z.output<typeof Outcome>

/** Why a mend that a rule knows is not to be had here. */
export const MendRefusal = z.strictObject({
  code: z.enum(['student-work', 'own-words', 'shows-hidden']),
  name: z.string().describe('Of the item it is about'),
})
export type MendRefusal = z.output<typeof MendRefusal>

export const FindingPlace = z.strictObject({
  fingerprint: z.string(),
  place: Place,
  says: z.string().optional().describe('Which of the rule’s messages it is'),
  message: z.string(),
  evidence: z.array(
    z.strictObject({ kind: z.enum(['words', 'date', 'value', 'count']), text: z.string() }),
  ),
  expected: z.string(),
  mend: z.array(Change).nullable(),
  refusal: MendRefusal.optional().describe('Why a mend that is known is not made here'),
  digest: z
    .string()
    .describe('Of the evidence: it changes when what is seen changes, the fingerprint does not'),
  waived: z
    .strictObject({
      id: z.string(),
      reason: z.string(),
      until: z.string().nullable(),
      changedSince: z.boolean().describe('What is seen is no longer what was waived'),
    })
    .nullable(),
})
export type FindingPlace = z.output<typeof FindingPlace>

export const Finding = z.strictObject({
  fingerprint: z.string(),
  rule: z.string(),
  title: z.string(),
  strength: Strength,
  message: z
    .string()
    .describe(
      'A sentence; where it is told of many places, of the first, with the rest named after it',
    ),
  why: z.string(),
  mender: z.enum(['instructor', 'designer', 'administrator']),
  owner: z
    .string()
    .nullable()
    .describe('E-mail of the person whose move it is, where it is a person of the course'),
  ofTemplate: z
    .boolean()
    .optional()
    .describe(
      'The template’s own: a course just deployed and filled in perfectly is told the same, so it is mended in the template',
    ),
  effortMinutes: z.number(),
  basis: z.string().nullable(),
  places: z.array(FindingPlace).min(1).describe('One for each repetition in which it was seen'),
})
export type Finding = z.output<typeof Finding>

export const Counts = z.strictObject({
  requirements: z.number().int().describe('met and not met'),
  met: z.number().int(),
  openMusts: z.number().int().describe('Findings, each opened into its places'),
  openShoulds: z.number().int(),
  waived: z.number().int().describe('Requirements excused by a waiver; out of the count'),
  attested: z.number().int().describe('Requirements that somebody answered for'),
  cannotTell: z.number().int(),
  notDueYet: z.number().int(),
  inapplicable: z.number().int(),
})
export type Counts = z.output<typeof Counts>

export const readiness = ['ready', 'not-ready', 'ready-as-far-as-seen'] as const

export const PairRecord = z.strictObject({
  expected: z.string().describe('Part instance'),
  part: z.string().describe('Key of the part'),
  repetition: z
    .number()
    .int()
    .nullable()
    .describe('Number of its repetition; null when it does not repeat'),
  found: z.string(),
  path: z.array(z.string()).describe('Where it stands in the course, names from the outside in'),
  by: z.enum(['hand', 'recorded', 'evidence']),
  confidence: z.number(),
  reasons: z.array(z.string()),
  moved: z.boolean(),
})

/** The result of checking one course. */
export const CheckResult = z.strictObject({
  schema: z.literal('wickerframe.check/1'),
  template: z.strictObject({ key: z.string(), title: z.string(), version: z.number().nullable() }),
  course: z.strictObject({
    id: z.string(),
    name: z.string(),
    code: z.string(),
    readAt: z.string(),
  }),
  asOf: z.string(),
  holds: z
    .strictObject({ from: z.string().nullable(), until: z.string().nullable() })
    .describe('As-of dates for which this stays true: from included, until excluded'),
  readiness: z.enum(readiness),
  counts: Counts,
  outcomes: z.array(Outcome),
  findings: z.array(Finding),
  pairs: z.array(PairRecord),
  missing: z.array(z.string()),
  extra: z.array(z.string()),
  merged: z
    .array(z.strictObject({ expected: z.array(z.string()), found: z.string() }))
    .describe('Modules of the template that stand together in one'),
  split: z
    .array(z.strictObject({ expected: z.string(), found: z.array(z.string()) }))
    .describe('Pages taken apart'),
  lapsed: z.array(Join).describe('Joins by hand of which an end is no longer there'),
})
export type CheckResult = z.output<typeof CheckResult>
