import { z } from 'zod'
import { canonicalJson, shortHash } from '../document/index.ts'

/** What bytes are known by: their SHA-256 (FIPS 180-4), as 64 hexadecimal digits. The same bytes are the same everywhere. */
export const ContentId = z
  .string()
  .regex(/^[0-9a-f]{64}$/, 'a SHA-256 in 64 hexadecimal digits, lower case')

/** What stands for each naming field in a document with fields, by the field as the document writes it. */
export const FieldTexts = z.record(z.string().min(1).max(200), z.string().max(4000))
export type FieldTexts = z.output<typeof FieldTexts>

/** A file as an item shows it: what it is called there, and what it holds. */
export const ShownFile = z.strictObject({ name: z.string().min(1).max(300), content: ContentId })
export type ShownFile = z.output<typeof ShownFile>

/** A file as it is written into a course; a document with fields is filled before it is sent. */
export const WrittenFile = ShownFile.extend({
  fields: FieldTexts.optional().describe(
    'Texts to fill a document with; whoever sends it has filled it, and a platform is never sent these',
  ),
})
export type WrittenFile = z.output<typeof WrittenFile>

/**
 * A file as it stands once it was written. What a filled document holds is only known once it was filled: until then it goes by
 * what it is made of.
 */
export const shownOf = ({ name, content, fields }: WrittenFile): ShownFile => {
  if (!fields) return { name, content }
  const made = shortHash(`${content} ${canonicalJson(fields)}`)
  return { name, content: made.repeat(4) }
}
