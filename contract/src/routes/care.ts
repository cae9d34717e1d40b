import { z } from 'zod'
import { Attestation, Join, PlainDate, Waiver } from '@wickerframe/core'
import { AsOf, Done, type Routes } from './asked.ts'

export const Fingerprint = z.string().min(1).max(100)
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

export const StoredWaiver = Waiver.extend({
  state: z.enum(['asked', 'approved', 'refused', 'withdrawn']),
  askedBy: z.string(),
  askedAt: z.string(),
  decidedBy: z.string().nullable(),
  answer: z.string(),
})
export type StoredWaiver = z.output<typeof StoredWaiver>
export const FollowUp = z.strictObject({
  fingerprint: z.string(),
  state: z.enum(['raised', 'promised', 'answered', 'mended', 'closed']),
  owner: z.string(),
  message: z.string(),
  note: z.string(),
  raisedBy: z.string(),
  raisedAt: z.string(),
  promisedFor: z.string().nullable(),
  answer: z.string(),
})
export type FollowUp = z.output<typeof FollowUp>
/** What a course's check is helped by besides its snapshot. */
export const CourseCare = z.strictObject({
  joins: z.array(Join.extend({ by: z.string(), at: z.string() })),
  waivers: z.array(StoredWaiver),
  attestations: z.array(Attestation),
  followUps: z.array(FollowUp),
  notThisWeek: z.array(z.string()),

  /** What differs from the check before; null where there was none. */
  since: z
    .strictObject({ checkedAt: z.string(), fresh: z.array(z.string()), gone: z.array(z.string()) })
    .nullable(),
})
export type CourseCare = z.output<typeof CourseCare>
export const careRoutes = {
  joinPair: {
    method: 'post',
    path: '/api/courses/:course/joins',
    summary: 'Join or unjoin a pair by hand, or forget that',
    may: 'join pairs',
    query: AsOf,
    body: JoinPut,
    answer: Done,
  },
  askWaiver: {
    method: 'post',
    path: '/api/courses/:course/waivers',
    summary: 'Ask for a waiver; a designer gives it at once',
    may: 'look after course',
    query: AsOf,
    body: WaiverRequest,
    answer: Done,
  },
  decideWaiver: {
    method: 'post',
    path: '/api/courses/:course/waivers/:waiver',
    summary: 'Approve, refuse or withdraw a waiver',
    may: 'look after course',
    query: AsOf,
    body: WaiverDecision,
    answer: Done,
  },
  attest: {
    method: 'post',
    path: '/api/courses/:course/attestations',
    summary: 'Give one’s word for what a snapshot cannot show, or take it back',
    may: 'look after course',
    query: AsOf,
    body: AttestationRequest,
    answer: Done,
  },
  followUp: {
    method: 'post',
    path: '/api/courses/:course/follow-ups',
    summary: 'Raise findings with their owner, promise, answer or close them',
    may: 'look after course',
    query: AsOf,
    body: FollowUpPut,
    answer: Done,
  },
  notThisWeek: {
    method: 'post',
    path: '/api/courses/:course/not-this-week',
    summary: 'Say that a part that may go is left out on purpose',
    may: 'look after course',
    query: AsOf,
    body: NotThisWeekPut,
    answer: Done,
  },
} as const satisfies Routes
