import { Change, Counts } from '@wickerframe/core'
import { z } from 'zod'

const told = {
  rule: z.string(),
  fingerprint: z.string(),
  path: z.array(z.string()),
  message: z.string(),
}

/** What `mend` did to a course document. */
export const MendsDocument = z.strictObject({
  schema: z.literal('wickerframe.mends/1'),
  asOf: z.string(),
  mended: z.array(z.strictObject({ ...told, changes: z.array(Change) })),
  left: z.array(z.strictObject({ ...told, reason: z.string() })),
  before: Counts,
  after: Counts.describe('Of the course as it is then'),
})
export type MendsDocument = z.output<typeof MendsDocument>
