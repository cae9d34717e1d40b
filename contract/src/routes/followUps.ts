import { z } from 'zod'
import { PlainDate } from '@wickerframe/core'
import { AsOf, Done, Fingerprint, type Routes, Words } from './asked.ts'

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

export const followUpRoutes = {
  followUp: {
    method: 'post',
    path: '/api/courses/:course/follow-ups',
    summary: 'Raise findings with their owner, promise, answer or close them',
    may: 'look after course',
    query: AsOf,
    body: FollowUpPut,
    answer: Done,
  },
} as const satisfies Routes
