import { z } from 'zod'
import { Key, PlainDate } from '@wickerframe/core'
import { RowId } from '../pathParameters.ts'
import { AsOf, Done, Fingerprints, large, type Routes, Words } from './asked.ts'
import { NamedCourse } from './conformance.ts'
import { StoredWaiver } from './storedWaiver.ts'

const lasting = {
  from: PlainDate.optional().describe('The first day; today without it, and no day that is gone'),
  until: PlainDate.nullable().default(null).describe('The last day; null: without end'),
  carried: z.boolean().default(false).describe('Whether it goes on in later terms'),
  reason: Words,
}

/** Asks for waivers, one for each place (one for each part or rule, where it excuses that); whoever may approve them gives them at once. */
export const WaiverRequest = z.strictObject({
  fingerprints: Fingerprints.describe('Of the places it is asked for'),
  scope: z.enum(['evidence', 'place', 'part', 'rule']).default('place'),
  ...lasting,
})

/** What a waiver for many courses excuses, and in which of them: in those of which all that is named here is true. */
export const WideWaiverRequest = z.strictObject({
  rule: z.string().min(1).max(80).nullable().describe('null: whatever rule the part breaks'),
  part: Key.nullable().default(null).describe('Of the template; null: wherever the rule is broken'),
  department: z.string().min(1).max(200).nullable().default(null),
  template: Key.nullable().default(null),
  term: z.string().min(1).max(60).nullable().default(null),
  courses: z.array(RowId).min(1).max(10_000).nullable().default(null),
  ...lasting,
})
export const WaiverDecision = z.strictObject({
  decision: z.enum(['approve', 'refuse', 'withdraw']),
  answer: z.string().trim().max(2000).default(''),
})

/** Somebody's word that something the snapshot cannot show was done, until the term's last day. */
export const AttestationRequest = z.strictObject({
  fingerprints: Fingerprints.describe('Of the requirements it is given for'),
  words: Words,
  takeBack: z.boolean().default(false),
})

export const NotThisWeekPut = z.strictObject({
  instance: z.string().min(1).max(200),
  leftOut: z.boolean(),
})

/** A waiver as it stands among all of them. */
export const WaiverLine = StoredWaiver.extend({
  title: z.string().describe('Of its rule; empty: whatever rule'),
  asks: z.string().describe('Name of whoever asked for it or gave it'),
  course: NamedCourse.nullable().describe('null: it reaches several'),
  reach: z.strictObject({
    department: z.string().nullable(),
    template: z.string().nullable().describe('What it is called'),
    term: z.string().nullable().describe('What it is called'),
    listed: z.boolean().describe('Whether its courses are named one by one'),
    courses: z.number().describe('Courses it reaches'),
  }),
  mayDecide: z.boolean(),
})
export type WaiverLine = z.output<typeof WaiverLine>

/** What a waiver for many courses may be about, and whom it may reach. */
const WaiverChoices = z.strictObject({
  rules: z.array(z.strictObject({ id: z.string(), title: z.string() })),
  templates: z.array(
    z.strictObject({
      key: z.string(),
      title: z.string(),
      parts: z.array(z.strictObject({ key: z.string(), name: z.string() })),
    }),
  ),
  departments: z.array(z.string()),
  terms: z.array(z.strictObject({ code: z.string(), title: z.string() })),
})
export type WaiverChoices = z.output<typeof WaiverChoices>

export const WaiverQueue = z.strictObject({
  choices: WaiverChoices,
  asked: z.array(WaiverLine).describe('Oldest first'),
  inForce: z.array(WaiverLine).describe('Approved and not past; those that end soonest first'),
  past: z
    .array(WaiverLine)
    .describe('Refused, withdrawn or ended; the first of them, latest first'),
})
export type WaiverQueue = z.output<typeof WaiverQueue>

/** How many courses are checked again for it, and by which run; null: by none. */
const CheckedAgain = z.strictObject({ courses: z.number(), run: z.number().nullable() })

export const waiverRoutes = {
  listWaivers: {
    method: 'get',
    path: '/api/waivers',
    summary: 'Waivers asked for, in force and past, in the courses one may see',
    may: 'see college',
    answer: WaiverQueue,
  },
  giveWideWaiver: {
    method: 'post',
    path: '/api/waivers',
    summary: 'Waive a rule or a part in many courses',
    may: 'decide waivers',
    body: WideWaiverRequest,
    limits: large,
    answer: CheckedAgain,
  },
  withdrawWideWaiver: {
    method: 'post',
    path: '/api/waivers/:waiver/withdraw',
    summary: 'Withdraw a waiver for many courses',
    may: 'decide waivers',
    answer: CheckedAgain,
  },
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
