import type { FileKind } from '@wickerframe/core'
import { zipped, type Zipped } from './zipped.ts'

const ascii = (text: string): number[] => [...text].map((letter) => letter.charCodeAt(0))
const begins = (bytes: Uint8Array, wanted: readonly number[], at = 0): boolean =>
  wanted.every((value, i) => bytes[at + i] === value)
const latin = (bytes: Uint8Array): string => new TextDecoder('latin1').decode(bytes)

/** Why a file is not what its name says, or may not go out; null where nothing is against it. */
type Against = (bytes: Uint8Array) => string | null

const signature =
  (what: string, is: (bytes: Uint8Array) => boolean): Against =>
  (bytes) =>
    is(bytes) ? null : `it is not ${what}`

/** Text in UTF-8 without control characters. */
const text: Against = (bytes) => {
  try {
    const read = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    // eslint-disable-next-line no-control-regex
    return /[\u0000-\u0008\u000e-\u001f]/.test(read) ? 'it is not plain text' : null
  } catch {
    return 'it is not plain text in UTF-8; save it again as UTF-8'
  }
}

/** Parts of office documents that run something, or fetch something from elsewhere. */
const activePart = /(?:vbaProject|vbaData)[^/]*\.bin$|(?:^|\/)(?:activeX|macrosheets)\//i
const attachedTemplate =
  /<Relationship\b(?=[^>]*\/(?:attachedTemplate|frame|image|oleObject|subDocument)")(?=[^>]*TargetMode\s*=\s*"External")/i

/** Office Open XML (ECMA-376): the main part is of the type that the ending says, and nothing in it runs. */
const office =
  (mainType: string): Against =>
  (bytes) => {
    const zip = zipped(bytes)
    const types = zip?.text('[Content_Types].xml')
    if (!zip || !types) return 'it is no office document'
    if (/macroEnabled/i.test(types) || [...zip.names].some((name) => activePart.test(name)))
      return 'it holds macros, which never go out; save it without them'
    if (!types.includes(`${mainType}.main+xml`)) return 'it is another kind of office document'
    return [...zip.names].some(
      (name) => name.endsWith('.rels') && attachedTemplate.test(zip.text(name) ?? ''),
    )
      ? 'it fetches a part of itself from elsewhere when it is opened; save it without that'
      : null
  }

/** OpenDocument (ISO/IEC 26300): a part named mimetype says what it is; scripts are parts of their own. */
const openDocument =
  (type: string): Against =>
  (bytes) => {
    const zip: Zipped | null = zipped(bytes)
    if (!zip || zip.text('mimetype')?.trim() !== `application/vnd.oasis.opendocument.${type}`)
      return 'it is no OpenDocument file of that kind'
    return [...zip.names].some((name) => /^(?:Basic|Scripts)\/./.test(name))
      ? 'it holds macros, which never go out; save it without them'
      : null
  }

/** PDF (ISO 32000): what runs is told as far as it is not packed away. */
const pdf: Against = (bytes) => {
  if (!latin(bytes.subarray(0, 1024)).includes('%PDF-')) return 'it is no PDF'
  const outsideStreams = latin(bytes).replace(/\bstream\r?\n[\s\S]*?endstream/g, '')
  return /\/(?:JavaScript|JS|Launch|RichMedia)\b/.test(outsideStreams)
    ? 'it holds something that runs; print it to a PDF again'
    : null
}
const rtf: Against = (bytes) => {
  if (!begins(bytes, ascii('{\\rtf'))) return 'it is no rich text'
  return /\\(?:objdata|objclass|objemb|objautlink)\b/.test(latin(bytes))
    ? 'it holds another program’s object; save it without'
    : null
}
const riff = (bytes: Uint8Array) => begins(bytes, ascii('RIFF')) && begins(bytes, ascii('WEBP'), 8)

/**
 * What is held against a file of each kind. Signatures: PNG (ISO/IEC 15948, 5.2), JPEG (ITU-T T.81, annex B), GIF89a, WebP
 * (RFC 9649), WebVTT (W3C), ISO base media (ISO/IEC 14496-12, `ftyp`), MPEG audio with or without ID3; from memory.
 */
const claims: Readonly<Record<FileKind, Against>> = {
  pdf,
  docx: office('wordprocessingml.document'),
  xlsx: office('spreadsheetml.sheet'),
  pptx: office('presentationml.presentation'),
  odt: openDocument('text'),
  ods: openDocument('spreadsheet'),
  odp: openDocument('presentation'),
  rtf,
  txt: text,
  csv: text,
  vtt: (bytes) =>
    text(bytes) ??
    (/^\ufeff?WEBVTT/.test(new TextDecoder().decode(bytes.subarray(0, 16)))
      ? null
      : 'it is no WebVTT'),
  png: signature('a PNG', (bytes) =>
    begins(bytes, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
  ),
  jpeg: signature('a JPEG', (bytes) => begins(bytes, [0xff, 0xd8, 0xff])),
  webp: signature('a WebP', riff),
  gif: signature('a GIF', (bytes) => /^GIF8[79]a/.test(latin(bytes.subarray(0, 6)))),
  mp3: signature(
    'an MP3',
    (bytes) =>
      begins(bytes, ascii('ID3')) || (bytes[0] === 0xff && ((bytes[1] ?? 0) & 0xe0) === 0xe0),
  ),
  m4a: signature('an M4A', (bytes) => begins(bytes, ascii('ftyp'), 4)),
  mp4: signature('an MP4', (bytes) => begins(bytes, ascii('ftyp'), 4)),
}

/** Why a file is not what its name says, or may not go out to students, in words; null where nothing is against it. */
export const againstFile = (bytes: Uint8Array, kind: FileKind): string | null => {
  try {
    return claims[kind](bytes)
  } catch (cause) {
    if (cause instanceof RangeError) return 'it unpacks to more than a document holds'
    throw cause
  }
}
