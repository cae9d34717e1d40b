import { z } from 'zod'
import { ContentId, Key } from '@wickerframe/core'

export const RowId = z.number().int().positive()
const Number1 = z.coerce.number().int().positive()

/** What may stand in an address, by its name there: the same name is the same thing in every route. */
export const pathParameters = {
  template: Key,
  version: Number1,
  comment: Number1,
  term: z.string().min(1).max(60),
  course: Number1,
  item: z.string().min(1).max(200),
  run: Number1,
  rehearsal: z.string().min(1).max(100),
  rule: Number1,
  message: Number1,
  waiver: Number1,
  schedule: Number1,
  person: Number1,
  content: ContentId,
  request: Number1,
  session: z.string().regex(/^[0-9a-f]{16}$/),
} as const
