import { z } from 'zod'
import { Line } from '../document/index.ts'
import { ContentId, FileName, mostFileBytes, titleOfFileName } from '../files/index.ts'
import { freshKey } from './freshKey.ts'
import { Format, Key } from './words.ts'

/** How many characters of text a template holds of a document, to tell by it what was filled in. */
export const mostFileWords = 20_000

/** A file that a template hands out. Its bytes are kept apart, by what they are; here stands what is known of it. */
export const TemplateFile = z.strictObject({
  key: Key,
  title: Line(200).describe('What people call it'),
  fileName: FileName,
  content: ContentId,
  bytes: z.number().int().min(1).max(mostFileBytes),
  licence: Line(300, 0).default(''),
  fields: z
    .array(Format)
    .max(60)
    .default([])
    .describe('Naming fields as they stand in the document, which are filled for each course'),
  current: z
    .literal(true)
    .optional()
    .describe(
      'Pages lead to the newest of the library, at an address that anybody may open; not where it has fields',
    ),
  words: z
    .string()
    .max(mostFileWords)
    .optional()
    .describe('Its text, a line for each paragraph; absent where it cannot be read as text'),
})
export type TemplateFile = z.output<typeof TemplateFile>

/** Whether pages lead to the newest of a file, and not to what it was when they were deployed. */
export const isKeptCurrent = ({ current, fields }: TemplateFile): boolean =>
  current === true && fields.length === 0

/** Which file a part of the kind file hands out. */
export const ItemFile = z
  .strictObject({
    key: Key.optional().describe('Key of a file in files; absent: the instructor puts one in'),
    left: z
      .enum(['proposed', 'theirs'])
      .optional()
      .describe(
        'proposed: the instructor may put another in its place; theirs: a form that they fill in, or a file of their own',
      ),
  })
  .refine(({ key, left }) => key !== undefined || left === 'theirs', {
    path: ['key'],
    message: 'the key of a file in files, where it is not left to the instructor',
  })
export type ItemFile = z.output<typeof ItemFile>

/** What is known of a file before it has a place among others. */
export type NewFile = Pick<TemplateFile, 'fileName' | 'content' | 'bytes' | 'fields'> &
  Partial<Pick<TemplateFile, 'title' | 'words' | 'licence'>>

/**
 * A file for a template or the library: the one that is there already where it holds the same, else under a key and a file name that no
 * other has.
 */
export const fileAmong = (file: NewFile, held: readonly TemplateFile[]): TemplateFile => {
  const same = held.find(({ content }) => content === file.content)
  if (same) return same
  const names = new Set(held.map(({ fileName }) => fileName.toLowerCase()))
  const [, stem = '', ending = ''] = /^(.*?)(\.[^.]+)$/.exec(file.fileName) ?? []
  let { fileName } = file
  for (let n = 2; names.has(fileName.toLowerCase()); n++)
    fileName = `${stem.slice(0, 140)} ${n}${ending}`
  const { bytes, content, fields, words, licence = '' } = file
  const title = file.title ?? titleOfFileName(file.fileName)
  return {
    key: freshKey(title, new Set(held.map(({ key }) => key))),
    title,
    fileName,
    content,
    bytes,
    licence,
    fields,
    ...(words === undefined ? {} : { words }),
  }
}
