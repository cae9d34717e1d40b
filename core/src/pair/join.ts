import { z } from 'zod'

/** What a person said of a pair. It outranks recorded identity, and holds in later checks while both ends are there. */
export const Join = z.strictObject({
  what: z.enum(['join', 'unjoin']).describe('unjoin: the two are never paired'),
  expected: z.string().min(1).max(200).describe('Part instance'),
  found: z.string().min(1).max(100).describe('Id of the module or item on the platform'),
})
export type Join = z.output<typeof Join>
