import { z } from 'zod'
import { Join } from '@wickerframe/core'
import { AsOf, Done, type Routes } from './asked.ts'

/** Joins or unjoins a pair by hand; `forget` takes that back. */
export const JoinPut = Join.extend({ what: z.enum(['join', 'unjoin', 'forget']) })
export type JoinPut = z.output<typeof JoinPut>

export const joinRoutes = {
  joinPair: {
    method: 'post',
    path: '/api/courses/:course/joins',
    summary: 'Join or unjoin a pair by hand, or forget that',
    may: 'join pairs',
    query: AsOf,
    body: JoinPut,
    answer: Done,
  },
} as const satisfies Routes
