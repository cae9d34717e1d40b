import { z } from 'zod'
import { PlainDate } from '../calendar/index.ts'

/** An approved, reasoned, dated exception. */
export const Waiver = z.strictObject({
  id: z.string().min(1).max(100),
  scope: z
    .enum(['evidence', 'place', 'part', 'rule'])
    .describe(
      'What it excuses: what was seen then, whatever is wrong with it at that place, a part of the template, or the rule in the whole course',
    ),
  rule: z.string().max(80).nullable().describe('null, of a part: whatever rule it breaks'),
  part: z
    .string()
    .max(80)
    .nullable()
    .default(null)
    .describe(
      'Key of the part of the template: of a part, that which it excuses; of a place, that which stands there',
    ),
  week: z
    .number()
    .int()
    .nullable()
    .default(null)
    .describe(
      'Of a part: only where it stands in this week, null: wherever it stands; of a place, its week',
    ),
  fingerprint: z
    .string()
    .max(100)
    .nullable()
    .default(null)
    .describe('Of the requirement; null for a part, or for the rule in the whole course'),
  evidence: z
    .string()
    .max(100)
    .nullable()
    .default(null)
    .describe('Digest of the evidence when it was given'),
  from: PlainDate,
  until: PlainDate.nullable().default(null).describe('Last day; null: without end'),
  reason: z.string().max(2000),
})
export type Waiver = z.output<typeof Waiver>

/** A person's dated word that something a snapshot cannot show was done. */
export const Attestation = z.strictObject({
  id: z.string().min(1).max(100),
  rule: z.string().max(80),
  fingerprint: z.string().max(100).describe('Of the requirement'),
  by: z.string().max(200),
  on: PlainDate,
  until: PlainDate.nullable().default(null).describe('Last day of the term it speaks of'),
  words: z.string().max(2000),
})
export type Attestation = z.output<typeof Attestation>

/** What is waived and attested in one course. */
export interface Exemptions {
  waivers: readonly Waiver[]
  attestations: readonly Attestation[]
}

interface AsOf {
  reached: (date: string) => boolean
  dayAfter: (date: string) => string
}

const inForce = (
  exemption: { from: string; until: string | null },
  { reached, dayAfter }: AsOf,
): boolean =>
  reached(exemption.from) && !(exemption.until !== null && reached(dayAfter(exemption.until)))

/** A requirement that is not met, as far as waivers tell it from others. */
export interface Excusable {
  rule: string
  fingerprint: string
  place: { part: string | null; week: number | null }
}

const excuses = (waiver: Waiver, { rule, fingerprint, place }: Excusable): boolean => {
  if (waiver.rule !== null && waiver.rule !== rule) return false
  switch (waiver.scope) {
    case 'rule':
      return waiver.rule !== null
    case 'part':
      return (
        waiver.part !== null &&
        waiver.part === place.part &&
        (waiver.week === null || waiver.week === place.week)
      )
    case 'place':
    case 'evidence':
      return waiver.rule !== null && waiver.fingerprint === fingerprint
  }
}

/** The waiver that excuses a requirement on the as-of date; the narrowest of several. */
export const waiverFor = (
  waivers: readonly Waiver[],
  requirement: Excusable,
  asOf: AsOf,
): Waiver | null => {
  const width = { evidence: 0, place: 1, part: 2, rule: 3 }
  return (
    waivers
      .filter((waiver) => excuses(waiver, requirement) && inForce(waiver, asOf))
      .sort((a, b) => width[a.scope] - width[b.scope] || (a.id < b.id ? -1 : 1))[0] ?? null
  )
}

/** The attestation that speaks for a requirement on the as-of date; the latest of several. */
export const attestationFor = (
  attestations: readonly Attestation[],
  rule: string,
  fingerprint: string,
  asOf: AsOf,
): Attestation | null =>
  attestations
    .filter(
      (attestation) =>
        attestation.rule === rule &&
        attestation.fingerprint === fingerprint &&
        inForce({ from: attestation.on, until: attestation.until }, asOf),
    )
    .sort((a, b) => (a.on < b.on ? 1 : -1))[0] ?? null
