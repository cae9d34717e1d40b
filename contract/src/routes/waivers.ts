import { z } from 'zod'
import { PlainDate, Waiver } from '@wickerframe/core'
import { AsOf, Done, Fingerprint, Fingerprints, type Routes, Words } from './asked.ts'

/** Asks for waivers, one for each place (one for each rule, where it excuses a rule); whoever may approve them gives them at once. */
export const WaiverRequest = z.strictObject({
  fingerprints: Fingerprints.describe('Of the places it is asked for'),
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

export const waiverRoutes = {
  askWaiver: {
    method: 'post',
    path: '/api/courses/:course/waivers',
    summary: 'Ask for waivers; a designer gives them at once',
    may: 'decide for course',
    query: AsOf,
    body: WaiverRequest,
    answer: Done,
  },
  decideWaiver: {
    method: 'post',
    path: '/api/courses/:course/waivers/:waiver',
    summary: 'Approve, refuse or withdraw a waiver',
    may: 'decide for course',
    query: AsOf,
    body: WaiverDecision,
    answer: Done,
  },
  attest: {
    method: 'post',
    path: '/api/courses/:course/attestations',
    summary: 'Give one’s word for what a snapshot cannot show, or take it back',
    may: 'decide for course',
    query: AsOf,
    body: AttestationRequest,
    answer: Done,
  },
  notThisWeek: {
    method: 'post',
    path: '/api/courses/:course/not-this-week',
    summary: 'Say that a part that may go is left out on purpose',
    may: 'decide for course',
    query: AsOf,
    body: NotThisWeekPut,
    answer: Done,
  },
} as const satisfies Routes
