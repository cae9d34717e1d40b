import { z } from 'zod'
import { Join, PlainDate, type Attestation, type Waiver } from '@wickerframe/core'

const Fingerprint = z.string().min(1).max(100)
const Words = z.string().trim().min(1).max(2000)

/** Joins or unjoins a pair by hand; `forget` takes that back. */
export const JoinPut = Join.extend({ what: z.enum(['join', 'unjoin', 'forget']) })
export type JoinPut = z.output<typeof JoinPut>

/** Asks for a waiver; whoever may approve it gives it at once. */
export const WaiverRequest = z.strictObject({
  fingerprint: Fingerprint.describe('Of the place it is asked for'),
  scope: z.enum(['evidence', 'place', 'rule']).default('place'),
  until: PlainDate.nullable().default(null),
  reason: Words,
})
export const WaiverDecision = z.strictObject({
  decision: z.enum(['approve', 'refuse', 'withdraw']),
  answer: z.string().trim().max(2000).default(''),
})

/** Somebody's word that something the snapshot cannot show was done, until the term's last day. */
export const AttestationRequest = z.strictObject({
  fingerprint: Fingerprint,
  words: Words,
  takeBack: z.boolean().default(false),
})

/** Raises a finding with its owner, promises, answers or closes it. */
export const FollowUpPut = z.discriminatedUnion('does', [
  z.strictObject({
    does: z.literal('raise'),
    fingerprints: z.array(Fingerprint).min(1).max(200),
    note: z.string().trim().max(2000).default(''),
    owner: z.email().max(200).optional(),
  }),
  z.strictObject({
    does: z.literal('promise'),
    fingerprints: z.array(Fingerprint).min(1).max(200),
    by: PlainDate,
    answer: z.string().trim().max(2000).default(''),
  }),
  z.strictObject({
    does: z.literal('answer'),
    fingerprints: z.array(Fingerprint).min(1).max(200),
    answer: Words,
  }),
  z.strictObject({ does: z.literal('close'), fingerprints: z.array(Fingerprint).min(1).max(200) }),
])
export type FollowUpPut = z.output<typeof FollowUpPut>

export const NotThisWeekPut = z.strictObject({
  instance: z.string().min(1).max(200),
  leftOut: z.boolean(),
})

/** Chosen mends: each named by the place's fingerprint, with the evidence that was seen when it was chosen. */
export const ChosenMend = z.strictObject({
  fingerprint: Fingerprint,
  digest: z.string().min(1).max(100),
})
export type ChosenMend = z.output<typeof ChosenMend>
export const MendRequest = z.strictObject({
  courses: z
    .array(
      z.strictObject({
        course: z.number().int().positive(),
        mends: z.array(ChosenMend).min(1).max(2000),
      }),
    )
    .min(1)
    .max(10_000),
})
export const MendOwnRequest = z.strictObject({ mends: z.array(ChosenMend).min(1).max(2000) })

export interface StoredWaiver extends Waiver {
  state: 'asked' | 'approved' | 'refused' | 'withdrawn'
  askedBy: string
  askedAt: string
  decidedBy: string | null
  answer: string
}
export type StoredAttestation = Attestation
export interface FollowUp {
  fingerprint: string
  state: 'raised' | 'promised' | 'answered' | 'mended' | 'closed'
  owner: string
  message: string
  note: string
  raisedBy: string
  raisedAt: string
  promisedFor: string | null
  answer: string
}
/** What a course's check is helped by besides its snapshot. */
export interface CourseCare {
  joins: (Join & { by: string; at: string })[]
  waivers: StoredWaiver[]
  attestations: StoredAttestation[]
  followUps: FollowUp[]
  notThisWeek: string[]
  /** What differs from the check before; null where there was none. */
  since: { checkedAt: string; fresh: string[]; gone: string[] } | null
}
/** What Wickerframe could mend by itself under one rule, in all courses. */
export interface MendableRule {
  rule: string
  title: string
  places: number
  courses: {
    course: number
    /** Course number on the platform. */
    platformId: string
    code: string
    title: string
    classSections: string[]
    mends: (ChosenMend & { message: string })[]
  }[]
}

export interface BlockOnPage {
  key: string
  kind: string
  state:
    | 'unchanged'
    | 'altered'
    | 'missing'
    | 'unfilled'
    | 'filled'
    | 'prompt-beside-answer'
    | 'guidance'
    | 'outdated'
  /** What the template expects there, in words. */
  expected: string
  /** Word by word, for what is altered or outdated. */
  difference: { text: string; change: 'same' | 'gone' | 'new' }[]
}
export interface PageDifference {
  name: string
  part: string | null
  blocks: BlockOnPage[]
  /** Why the page could not be read, or null. */
  notRead: string | null
}
