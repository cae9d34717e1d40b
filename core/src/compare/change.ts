import { z } from 'zod'
import { canonicalJson } from '../document/index.ts'
import { WordRun } from '../page/index.ts'
import { fieldWords, type CalledThenAndNow } from './words.ts'

/** One thing that differs between two versions of a template, told in words. */
export const TemplateChange = z.strictObject({
  code: z.enum([
    'part-added',
    'part-removed',
    'part-moved',
    'field-set',
    'block-added',
    'block-removed',
    'block-moved',
    'text-changed',
    'list-added',
    'list-removed',
    'list-changed',
  ]),

  /** Key of the part it is about; null for the template itself. */
  part: z.string().nullable(),

  /** What people call that part: its naming format, or the template. */
  of: z.string(),

  /** The sentence without its subject, e.g. `checklist moved last`. */
  words: z.string(),

  /** The text itself, word by word, where text changed. */
  text: z.array(WordRun).nullable(),
})
export type TemplateChange = z.output<typeof TemplateChange>

/** Notes a change. */
export type Tell = (
  code: TemplateChange['code'],
  words: string,
  text?: readonly WordRun[] | null,
) => void

/** Notes changes of one part, or of the template itself. */
export const tellingOf =
  (changes: TemplateChange[]) =>
  (part: string | null, of: string): Tell =>
  (code, words, text = null) =>
    void changes.push({ code, part, of, words, text: text && [...text] })

export const same = (a: unknown, b: unknown): boolean =>
  canonicalJson(a ?? null) === canonicalJson(b ?? null)

/** Tells of every one of these fields that differs. */
export const compareFields = (
  before: object,
  after: object,
  fields: readonly string[],
  called: CalledThenAndNow,
  told: (words: string) => void,
): void => {
  const was = new Map(Object.entries(before))
  const is = new Map(Object.entries(after))
  for (const field of fields)
    if (!same(was.get(field), is.get(field)))
      told(fieldWords(field, was.get(field), is.get(field), called))
}
