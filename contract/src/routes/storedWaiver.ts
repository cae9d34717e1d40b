import { z } from 'zod'
import { Waiver } from '@wickerframe/core'

/** A waiver with who asked for it, and what came of that. */
export const StoredWaiver = Waiver.extend({
  carried: z.boolean(),
  state: z.enum(['asked', 'approved', 'refused', 'withdrawn']),
  askedBy: z.string(),
  askedAt: z.string(),
  decidedBy: z.string().nullable(),
  answer: z.string(),
})
export type StoredWaiver = z.output<typeof StoredWaiver>
