import { z } from 'zod'
import { PlainDate } from '@wickerframe/core'
import type { BodyLimits, Route } from '../route.ts'

/** Several routes at once, by the name that clients call them by. */
export type Routes = Readonly<Record<string, Route>>

/** Nothing more is said than that it was done. */
export const Done = z.strictObject({})
/** A run was begun, and is followed by its id. */
export const Begun = z.strictObject({ run: z.number() })

export const AsOf = z.strictObject({ asOf: PlainDate.optional().describe('Today without it') })
/** Digest of the preview an act was decided on: the act is refused when that has changed. */
export const AsShown = z.strictObject({ shown: z.string().max(100).optional() })
export const Flag = z
  .enum(['0', '1'])
  .default('0')
  .transform((said) => said === '1')

/** A whole template, or very many courses. */
export const large: BodyLimits = { bytes: 8 * 2 ** 20, values: 200_000 }

export const Fingerprint = z.string().min(1).max(100)
/** Places of findings that one act is about. */
export const Fingerprints = z.array(Fingerprint).min(1).max(2000)
export const Words = z.string().trim().min(1).max(2000)
