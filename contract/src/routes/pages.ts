import { z } from 'zod'
import { html } from '../route.ts'
import { AsOf, type Routes } from './asked.ts'

export const BlockOnPage = z.strictObject({
  key: z.string(),
  kind: z.string(),
  state: z.enum([
    'unchanged',
    'altered',
    'missing',
    'unfilled',
    'filled',
    'prompt-beside-answer',
    'guidance',
    'outdated',
  ]),

  /** What the template expects there, in words. */
  expected: z.string(),

  /** Word by word, for what is altered or outdated. */
  difference: z.array(
    z.strictObject({ text: z.string(), change: z.enum(['same', 'gone', 'new']) }),
  ),
})
export type BlockOnPage = z.output<typeof BlockOnPage>
export const PageDifference = z.strictObject({
  name: z.string(),
  part: z.string().nullable(),
  blocks: z.array(BlockOnPage),

  /** Why the page could not be read, or null. */
  notRead: z.string().nullable(),
})
export type PageDifference = z.output<typeof PageDifference>

export const pageRoutes = {
  coursePage: {
    method: 'get',
    path: '/api/courses/:course/items/:item',
    summary: 'A page of the course, sanitised',
    may: 'see courses',
    answer: html,
  },
  pageDifference: {
    method: 'get',
    path: '/api/courses/:course/items/:item/difference',
    summary:
      'A page block by block: what was altered, left unfilled, left standing or is out of date',
    may: 'see courses',
    query: AsOf,
    answer: PageDifference,
  },
  markedPage: {
    method: 'get',
    path: '/api/courses/:course/items/:item/marked',
    summary: 'A page of the course, sanitised, with what departs from the template marked in it',
    may: 'see courses',
    query: AsOf,
    answer: html,
  },
} as const satisfies Routes
