import {
  failure,
  FileName,
  kindOfFileName,
  mostReadWords,
  parseFormat,
  success,
  type FileKind,
  type Result,
} from '@wickerframe/core'
import { documentParagraphs, marginParagraphs } from './documentText.ts'
import { againstFile } from './fileClaims.ts'
import { fillDocument } from './fillDocument.ts'
import { pdfText } from './pdfText.ts'
import { zipped } from './zipped.ts'

/** What is known of a file that people hand out. */
export interface Handout {
  kind: FileKind
  /** Naming fields of a document, as they stand in it; none where it goes out as it is. */
  fields: string[]
  /** What stands in braces like a field and is none: it stays as it stands. */
  notFields: string[]
  /** Why its fields are not filled; null where they are, or it has none. */
  unfillable: string | null
  /** Its text, a line for each paragraph; null where it cannot be read as text, or is too long. */
  words: string | null
}

const mostFields = 60
const inBraces = /\{[^{}]{1,100}\}/g

/** Whether braces hold one naming field and nothing else. */
const isField = (text: string): boolean => {
  const read = parseFormat(text)
  return read.ok && read.value.nodes.length === 1 && read.value.nodes[0]?.node === 'field'
}

const bounded = (words: string): string | null => (words.length > mostReadWords ? null : words)

const textOf = (bytes: Uint8Array): string =>
  new TextDecoder('utf-8')
    .decode(bytes)
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '')
    .join('\n')

const nothing = { fields: [], notFields: [], unfillable: null, words: null }

const ofDocument = (bytes: Uint8Array): Omit<Handout, 'kind'> => {
  const zip = zipped(bytes)
  const paragraphs = zip && documentParagraphs(zip, 'docx')
  if (!zip || !paragraphs) return nothing
  const words = bounded(paragraphs.join('\n'))
  const braces = [
    ...new Set(
      [...paragraphs, ...marginParagraphs(zip)].flatMap((line) => line.match(inBraces) ?? []),
    ),
  ]
  const fields = braces.filter(isField)
  const notFields = braces.filter((text) => !isField(text))
  if (fields.length === 0) return { fields, notFields, unfillable: null, words }
  const unfillable =
    fields.length > mostFields
      ? `it has ${fields.length} fields; at most ${mostFields} are filled`
      : cannotFill(bytes, fields)
  return { fields: unfillable === null ? fields : [], notFields, unfillable, words }
}

/** A trial: whether it can be filled, and holds what it was filled with. */
const cannotFill = (bytes: Uint8Array, fields: readonly string[]): string | null => {
  const trial = 'Xq7v'
  try {
    const filled = fillDocument(bytes, Object.fromEntries(fields.map((field) => [field, trial])))
    const zip = zipped(filled)
    const lines = zip ? [...(documentParagraphs(zip, 'docx') ?? []), ...marginParagraphs(zip)] : []
    const left = fields.find((field) => lines.some((line) => line.includes(field)))
    return left === undefined && lines.some((line) => line.includes(trial))
      ? null
      : `${left ?? fields[0]} could not be filled`
  } catch {
    return 'its braces do not go together: every { wants its }'
  }
}

/**
 * Reads a file that people hand out: whether it is what its name says, what it says, and which fields of a course are in it.
 * @returns what is known of it, or in words why it may not be put in
 */
export const readHandout = async (
  bytes: Uint8Array,
  name: string,
): Promise<Result<Handout, string>> => {
  const called = FileName.safeParse(name)
  const kind = kindOfFileName(name)
  if (!called.success || kind === null)
    return failure(called.error?.issues[0]?.message ?? 'a file of a kind that may be put in')
  const against = againstFile(bytes, kind)
  if (against !== null) return failure(against)
  if (kind === 'docx') return success({ kind, ...ofDocument(bytes) })
  if (kind === 'pdf') return success({ kind, ...nothing, words: await pdfText(bytes) })
  if (kind === 'odt') {
    const zip = zipped(bytes)
    const paragraphs = zip && documentParagraphs(zip, 'odt')
    return success({ kind, ...nothing, words: paragraphs && bounded(paragraphs.join('\n')) })
  }
  if (kind === 'txt' || kind === 'csv' || kind === 'vtt')
    return success({ kind, ...nothing, words: bounded(textOf(bytes)) })
  return success({ kind, ...nothing })
}
