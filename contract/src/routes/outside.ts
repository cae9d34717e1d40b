import { z } from 'zod'
import { redirect } from '../route.ts'
import type { Routes } from './asked.ts'

/** Why the institution’s own sign-in let nobody in; stands in the address where the browser goes on. */
export const outsideProblems = [
  'away',
  'wrong-answer',
  'refused-there',
  'no-account',
  'deactivated',
  'over',
  'throttled',
] as const
export type OutsideProblem = (typeof outsideProblems)[number]

export const outsideRoutes = {
  signInWays: {
    method: 'get',
    path: '/api/sign-in/ways',
    summary: 'How one signs in here',
    may: 'anyone',
    answer: z.strictObject({
      /** With an e-mail address and a password that is kept here. */
      local: z.boolean(),
      /** What the institution’s own sign-in is called; null: there is none. */
      outside: z.string().nullable(),
    }),
  },
  beginOutside: {
    method: 'get',
    path: '/api/sign-in/outside',
    summary: 'Sends the browser to the institution’s own sign-in (OpenID Connect)',
    may: 'anyone',
    answer: redirect,
  },
  endOutside: {
    method: 'get',
    path: '/api/sign-in/outside/back',
    summary: 'Where the institution’s own sign-in sends the browser back to',
    may: 'anyone',
    answer: redirect,
  },
} as const satisfies Routes
