import { parse } from 'csv-parse/sync'
import { failure, success, type Result } from '@wickerframe/core'

/** Encodings that text files come in; Windows-1252 is what a file is taken for that is nothing else. */
export type Encoding = 'UTF-8' | 'UTF-16' | 'Windows-1252'

export interface TextFile {
  text: string
  takenFor: Encoding
}

const decoded = (bytes: Uint8Array, label: string): string | null => {
  try {
    return new TextDecoder(label, { fatal: true }).decode(bytes)
  } catch {
    return null
  }
}

/** Bytes 0x80 to 0x9F in Windows-1252, as the WHATWG Encoding Standard's index has them; the five that it leaves out stay. */
const highWindows1252 =
  '\u20AC\u0081\u201A\u0192\u201E\u2026\u2020\u2021\u02C6\u2030\u0160\u2039\u0152\u008D\u017D\u008F' +
  '\u0090\u2018\u2019\u201C\u201D\u2022\u2013\u2014\u02DC\u2122\u0161\u203A\u0153\u009D\u017E\u0178'
/** Node.js 20 reads windows-1252 as Latin 1, in which these bytes are control characters; so they are looked up here. */
const windows1252 = (bytes: Uint8Array): string => {
  let text = ''
  for (const byte of bytes)
    text +=
      byte >= 0x80 && byte <= 0x9f
        ? (highWindows1252[byte - 0x80] ?? '')
        : String.fromCodePoint(byte)
  return text
}

/** Which byte order text without a mark is in, told by its zero bytes: every second one is zero where people write in Latin letters. */
const orderOf = (bytes: Uint8Array): 'utf-16le' | 'utf-16be' | null => {
  const some = bytes.subarray(0, 2000)
  const zeros = [0, 0]
  for (const [i, byte] of some.entries()) if (byte === 0) zeros[i % 2] = (zeros[i % 2] ?? 0) + 1
  const [even = 0, odd = 0] = zeros
  const most = some.length / 2
  if (odd > most * 0.4 && even < most * 0.1) return 'utf-16le'
  if (even > most * 0.4 && odd < most * 0.1) return 'utf-16be'
  return null
}

/** What no text holds: control characters but tab, line ends and form feed. */
// oxlint-disable-next-line no-control-regex
const notText = /[\u0000-\u0008\u000B\u000E-\u001F]/

/**
 * Reads a text file: UTF-8 and UTF-16 with and without a byte order mark (Unicode 15, section 23.8), otherwise Windows-1252, in
 * which older programs on Windows save. @returns null for what is no text
 */
export const readText = (bytes: Uint8Array): TextFile | null => {
  const marked =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : null
  const wide = marked ?? orderOf(bytes)
  const text = wide ? decoded(bytes, wide) : decoded(bytes, 'utf-8')
  const takenFor: Encoding = wide ? 'UTF-16' : text === null ? 'Windows-1252' : 'UTF-8'
  const read = text ?? (wide ? null : windows1252(bytes))
  return read === null || notText.test(read)
    ? null
    : { text: read.replace(/^\uFEFF/, ''), takenFor }
}

/** What stands between the cells: what the first row, outside quotation marks, has most of. */
export const delimiterOf = (text: string): string => {
  const head = (/^\s*([^\r\n]*)/.exec(text)?.[1] ?? '').replace(/"[^"]*"/g, '')
  const [best] = ['\t', ';', ',']
    .map((separator) => ({ one: separator, count: head.split(separator).length - 1 }))
    .sort((a, b) => b.count - a.count)
  return best && best.count > 0 ? best.one : ','
}

export interface TableFile {
  rows: { line: number; cells: string[] }[]
  takenFor: Encoding
}
export interface TableProblem {
  line: number
  found: string
  reason: string
}

/**
 * Reads a table file or a paste from a spreadsheet: CSV (RFC 4180) with comma, semicolon or tab, in any encoding `readText`
 * reads. Cells are trimmed, empty lines passed over.
 * @param most rows besides the header
 */
export const readTable = (bytes: Uint8Array, most: number): Result<TableFile, TableProblem> => {
  const file = readText(bytes)
  if (!file)
    return failure({
      line: 1,
      found: 'bytes that are no text',
      reason: 'a text file: save the table as CSV and bring it in again',
    })
  let records: { record: string[]; info: { lines: number } }[]
  try {
    records = parse(file.text, {
      delimiter: delimiterOf(file.text),
      record_delimiter: ['\r\n', '\n', '\r'],
      relax_column_count: true,
      skip_empty_lines: true,
      info: true,
      trim: true,
      max_record_size: 100_000,
      to: most + 2,
    }) as unknown as typeof records
  } catch (cause) {
    return failure({
      line:
        cause instanceof Error && 'lines' in cause && typeof cause.lines === 'number'
          ? cause.lines
          : 1,
      found: 'text that is not CSV',
      reason: cause instanceof Error ? cause.message.slice(0, 200) : 'a CSV file',
    })
  }
  if (records.length > most + 1)
    return failure({
      line: 1,
      found: `more than ${most} rows`,
      reason: `at most ${most} rows a file`,
    })
  return success({
    rows: records.map(({ record, info }) => ({ line: info.lines, cells: record })),
    takenFor: file.takenFor,
  })
}

/** How a file was read, told where it was not what we would write ourselves; empty otherwise. */
export const takenForWords = (takenFor: Encoding): string =>
  takenFor === 'Windows-1252'
    ? 'The file is not UTF-8 and was taken for Windows-1252; look at letters with accents before you go on.'
    : takenFor === 'UTF-16'
      ? 'The file was read as UTF-16.'
      : ''
