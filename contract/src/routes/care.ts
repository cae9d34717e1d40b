import { z } from 'zod'
import { Attestation, Join } from '@wickerframe/core'
import { FollowUp } from './followUps.ts'
import { StoredWaiver } from './storedWaiver.ts'

/** What a course's check is helped by besides its snapshot. */
export const CourseCare = z.strictObject({
  joins: z.array(Join.extend({ by: z.string(), at: z.string() })),
  waivers: z.array(StoredWaiver),
  attestations: z.array(Attestation),
  followUps: z.array(FollowUp),
  notThisWeek: z.array(z.string()),

  /** What differs from the check before; null where there was none. */
  since: z
    .strictObject({ checkedAt: z.string(), fresh: z.array(z.string()), gone: z.array(z.string()) })
    .nullable(),
})
export type CourseCare = z.output<typeof CourseCare>
