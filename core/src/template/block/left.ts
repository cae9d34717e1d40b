import { z } from 'zod'
import { Html } from '../words.ts'

const Proposed = z
  .strictObject({ as: z.literal('proposed') })
  .describe('It stands as written until the instructor words it otherwise')

const Asked = z
  .strictObject({
    as: z.literal('asked'),
    hint: z.string().max(1000).optional(),
    example: Html.optional().describe('An answer as it could be'),
  })
  .describe('What is written in it asks the instructor, piece by piece, until it is answered')

/** How a block is left to the instructor: proposed, or asked for. Without it, it stands as it is written. */
const Left = z.discriminatedUnion('as', [Proposed, Asked])
export type Left = z.output<typeof Left>

/** Of blocks whose words the instructor may be left with, or asked for. */
export const leavable = { left: Left.optional() }
/** Of blocks whose words may only be proposed: what asks for such words is a fill-in. */
export const proposable = { left: Proposed.optional() }
/** Of blocks that are made from the course, with lines beside that may be asked for. */
export const askable = { left: Asked.optional() }
