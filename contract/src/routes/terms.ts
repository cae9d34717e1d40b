import { z } from 'zod'
import { FreeDays, PlainDate, Term } from '@wickerframe/core'
import { iCalendar } from '../route.ts'
import { AsShown, type Routes } from './asked.ts'

export const TermPut = z.strictObject({
  was: z.string().length(64).nullable().describe('Revision that was edited; null for a new term'),
  term: Term,
})
export const TermPreviewRequest = z.strictObject({ term: Term })
export const TermDetail = z.strictObject({
  term: Term,

  /** Of what stands stored; an edit names the one it was made from. */
  revision: z.string(),
  courses: z.array(
    z.strictObject({
      id: z.number(),
      code: z.string(),
      title: z.string(),
      weeks: z.number(),
      session: z.string().nullable(),
    }),
  ),
})
export type TermDetail = z.output<typeof TermDetail>
/** What an edited term changes in courses of the same template, length and session: told of one of them. */
export const TermChange = z.strictObject({
  courses: z.array(z.strictObject({ id: z.number(), code: z.string(), title: z.string() })),

  /** Of how many weeks before and after; null where they cannot be worked out. */
  weeks: z.strictObject({ before: z.number(), after: z.number().nullable() }),
  names: z.array(z.strictObject({ from: z.string(), to: z.string() })),
  dates: z.array(
    z.strictObject({
      name: z.string(),
      what: z.enum(['due', 'opens']),
      from: z.string().nullable(),
      to: z.string().nullable(),
    }),
  ),

  /** Further changes of the same kinds that are not listed. */
  more: z.number(),

  /** Why the edited term does not fit these courses, or null. */
  problem: z.string().nullable(),
})
export type TermChange = z.output<typeof TermChange>
export const TermPreview = z.strictObject({
  /** Of what the preview was made from: saving with `?shown=` is refused once that changed. */
  digest: z.string(),
  courses: z.number(),
  unchanged: z.number(),
  changes: z.array(TermChange),
})
export type TermPreview = z.output<typeof TermPreview>

export const termRoutes = {
  listTerms: {
    method: 'get',
    path: '/api/terms',
    summary: 'Terms',
    may: 'see courses',
    answer: z.array(Term),
  },
  readTerm: {
    method: 'get',
    path: '/api/terms/:term',
    summary: 'A term, with the courses in it',
    may: 'see college',
    answer: TermDetail,
  },
  previewTerm: {
    method: 'post',
    path: '/api/terms/:term/preview',
    summary: 'What an edited term would change in its courses',
    may: 'keep terms',
    body: TermPreviewRequest,
    answer: TermPreview,
  },
  saveTerm: {
    method: 'post',
    path: '/api/terms/:term',
    summary: 'Save a term, or make a new one',
    may: 'keep terms',
    query: AsShown,
    body: TermPut,
    answer: z.strictObject({ revision: z.string() }),
  },
  termCalendar: {
    method: 'get',
    path: '/api/terms/:term/calendar',
    summary: 'A term as an iCalendar file',
    may: 'see courses',
    answer: iCalendar,
  },
  readFreeDays: {
    method: 'post',
    path: '/api/free-days',
    summary: 'Read holidays and breaks from an iCalendar file, from one day until another',
    may: 'keep terms',
    query: z.strictObject({ from: PlainDate, until: PlainDate }),
    body: iCalendar,
    answer: FreeDays,
  },
} as const satisfies Routes
