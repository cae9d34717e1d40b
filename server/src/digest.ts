import { createHash } from 'node:crypto'
import { canonicalJson } from '@wickerframe/core'

/** SHA-256 of a text, in hexadecimal. */
export const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex')
/** SHA-256 of a value's canonical JSON. */
export const digestOf = (value: unknown): string => sha256(canonicalJson(value))
