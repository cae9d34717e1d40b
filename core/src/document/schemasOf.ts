import type { z } from 'zod'

/** Schemas of kinds, in their order and with their types; a list that is mapped would forget which stands where. */
export const schemasOf = <const Kinds extends readonly { schema: z.ZodType }[]>(kinds: Kinds) =>
  kinds.map(({ schema }) => schema) as { [I in keyof Kinds]: Kinds[I]['schema'] }
