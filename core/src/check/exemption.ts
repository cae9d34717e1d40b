import { z } from 'zod'
import { PlainDate } from '../calendar/index.ts'

/** An approved, reasoned, dated exception. */
export const Waiver = z.strictObject({
  id: z.string().min(1).max(100),
  scope: z
    .enum(['evidence', 'place', 'rule'])
    .describe(
      'What it excuses: what was seen then, whatever is wrong at that place, or the rule in the whole course',
    ),
  rule: z.string().max(80),
  fingerprint: z
    .string()
    .max(100)
    .nullable()
    .default(null)
    .describe('Of the requirement; null for the rule in the whole course'),
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

/** The waiver that excuses a requirement on the as-of date; the narrowest of several. */
export const waiverFor = (
  waivers: readonly Waiver[],
  rule: string,
  fingerprint: string,
  asOf: AsOf,
): Waiver | null => {
  const width = { evidence: 0, place: 1, rule: 2 }
  return (
    waivers
      .filter(
        (waiver) =>
          waiver.rule === rule &&
          (waiver.scope === 'rule' || waiver.fingerprint === fingerprint) &&
          inForce(waiver, asOf),
      )
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
