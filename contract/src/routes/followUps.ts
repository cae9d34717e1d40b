import { z } from 'zod'
import { MendTarget, PlainDate } from '@wickerframe/core'
import { AsOf, Done, Fingerprints, type Routes, Words } from './asked.ts'

/** Raises findings with their owners, promises, answers or closes them; each place of a finding is named by its fingerprint. */
export const FollowUpPut = z.discriminatedUnion('does', [
  z.strictObject({
    does: z.literal('raise'),
    fingerprints: Fingerprints,
    note: z.string().trim().max(2000).default(''),
    owner: z.email().max(200).optional(),
  }),
  z.strictObject({
    does: z.literal('promise'),
    fingerprints: Fingerprints,
    by: PlainDate,
    answer: z.string().trim().max(2000).default(''),
  }),
  z.strictObject({ does: z.literal('answer'), fingerprints: Fingerprints, answer: Words }),
  z.strictObject({ does: z.literal('close'), fingerprints: Fingerprints }),
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

/** What came of raising one thing in all courses. */
export const RaisedWith = z.strictObject({
  places: z.number(),
  courses: z.number(),
  people: z.number(),
  /** Courses in which it is nobody’s: nobody teaches them. */
  nobodys: z.number(),
})
export type RaisedWith = z.output<typeof RaisedWith>

export const followUpRoutes = {
  raiseEverywhere: {
    method: 'post',
    path: '/api/follow-ups',
    summary:
      'Raise one thing to mend first, in all courses, with whose move it is; what is raised already stays as it is',
    may: 'raise findings',
    body: MendTarget.extend({ note: z.string().trim().max(2000).default('') }),
    answer: RaisedWith,
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
} as const satisfies Routes
