import { createHash } from 'node:crypto'
import { canonicalJson } from '@wickerframe/core'

/** SHA-256 of a text or of bytes, in hexadecimal. */
export const sha256 = (text: string | Uint8Array): string =>
  createHash('sha256').update(text).digest('hex')
/** SHA-256 of a value's JSON as it stands: for values that the same code makes, with their fields in the same order. */
export const digestOfMade = (value: unknown): string => sha256(JSON.stringify(value))
/** SHA-256 of a value's canonical JSON. */
export const digestOf = (value: unknown): string => sha256(canonicalJson(value))
