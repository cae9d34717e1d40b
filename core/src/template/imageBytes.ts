import { withoutEnd } from '../document/index.ts'

export const imageKinds = ['svg', 'png', 'jpeg', 'webp'] as const
export type ImageKind = (typeof imageKinds)[number]

/** Media types as registered with IANA, from memory. */
export const mediaTypeOf: Record<ImageKind, string> = {
  svg: 'image/svg+xml',
  png: 'image/png',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
}

const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'
const base64Value = new Map([...alphabet].map((letter, value) => [letter, value]))

/** The bytes of base64 (RFC 4648, section 4). */
export const bytesOfBase64 = (text: string): Uint8Array => {
  const letters = withoutEnd(text, '=')
  const bytes = new Uint8Array(Math.floor((letters.length * 6) / 8))
  let held = 0
  let bits = 0
  let at = 0
  for (const letter of letters) {
    held = ((held << 6) | (base64Value.get(letter) ?? 0)) & 0xffff
    bits += 6
    if (bits >= 8) {
      bits -= 8
      bytes[at++] = (held >> bits) & 0xff
    }
  }
  return bytes
}

const startsWith = (bytes: Uint8Array, values: readonly number[], from = 0): boolean =>
  values.every((value, i) => bytes[from + i] === value)
export const ascii = (text: string): number[] => [...text].map((letter) => letter.charCodeAt(0))

/**
 * The kind of an image, told by its content: the signature of PNG (ISO/IEC 15948, section 5.2), the start of image of JPEG
 * (ITU-T T.81, annex B), the RIFF header of WebP (RFC 9649), and the root element of SVG. Null: it is none of these.
 */
export const imageKindOf = (bytes: Uint8Array): ImageKind | null => {
  if (startsWith(bytes, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])) return 'png'
  if (startsWith(bytes, [0xff, 0xd8, 0xff])) return 'jpeg'
  if (startsWith(bytes, ascii('RIFF')) && startsWith(bytes, ascii('WEBP'), 8)) return 'webp'
  const head = String.fromCharCode(...bytes.subarray(0, 4000))
  const root = /<(?![?!])([\w:]+)/.exec(head.replace(/<!--.{0,4000}?(?:-->|$)/gs, ''))?.[1]
  return root === 'svg' || root === 'svg:svg' ? 'svg' : null
}

/** What an image consists of: the text of a drawing, or the bytes of a photograph as base64. */
export interface ImageBytes {
  svg?: string | undefined
  base64?: string | undefined
}
