import { z } from 'zod'

/** A published JSON Schema (draft 2020-12) of a document. It is necessary, not sufficient: cross-references are checked by the reader only. */
export const jsonSchemaOf = (name: string, schema: z.ZodType): z.core.JSONSchema.JSONSchema => ({
  ...z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }),
  $id: `urn:wickerframe:schema:${name}`,
  $comment:
    'Generated from the Zod schema. Necessary, not sufficient: keys that must be unique, references between parts and naming formats are checked by the reader only.',
})
