import { z } from 'zod'
import { Line, shortHash } from '../document/index.ts'
import { rememberOf } from '../remember/index.ts'
import { freshKey } from './freshKey.ts'
import { Key } from './words.ts'

export const imageKinds = ['svg', 'png', 'jpeg', 'webp'] as const
export type ImageKind = (typeof imageKinds)[number]

/** Media types as registered with IANA, from memory. */
export const mediaTypeOf: Record<ImageKind, string> = {
  svg: 'image/svg+xml',
  png: 'image/png',
  jpeg: 'image/jpeg',
  webp: 'image/webp',
}

/** What a file may be called, here and on the platform: no folders, no leading dot, no `..`. */
export const ImageName = z
  .string()
  .regex(
    /^(?!\.)(?!.*\.\.)[\w.-]{1,120}$/,
    'a file name of letters, digits, `.`, `-` and `_`, without a leading dot or two dots together',
  )

/** The nearest file name that may be used. */
export const imageNameFor = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .replace(/[^\w.-]+/g, '-')
    .replace(/\.{2,}/g, '.')
    .replace(/^[.-]+/, '')
    .slice(0, 110) || 'image'

const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/'
const base64Value = new Map([...alphabet].map((letter, value) => [letter, value]))

/** The bytes of base64 (RFC 4648, section 4). */
const bytesOfBase64 = (text: string): Uint8Array => {
  const letters = text.replace(/=+$/, '')
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
const ascii = (text: string): number[] => [...text].map((letter) => letter.charCodeAt(0))

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

interface Content {
  svg?: string | undefined
  base64?: string | undefined
}
const kindOf = ({ svg = '', base64 }: Content): ImageKind | null =>
  imageKindOf(
    base64 === undefined
      ? Uint8Array.from(ascii(svg.slice(0, 4000)))
      : bytesOfBase64(base64.slice(0, 64)),
  )

const number32 = (bytes: Uint8Array, at: number): number =>
  bytes.subarray(at, at + 4).reduce((sum, byte) => sum * 256 + byte, 0)

/**
 * How many times wider an image is than high: of a drawing by its view box (SVG 2, section 8.6), else its width and height; of a PNG
 * by its header (ISO/IEC 15948, section 11.2.2). Null where it is not told.
 */
export const aspectOf = ({ svg, base64 }: Content): number | null => {
  const root = /<svg\b[^>]{0,2000}>/.exec((svg ?? '').slice(0, 4000))?.[0] ?? ''
  const box = /\bviewBox="\s*[\d.-]+[\s,]+[\d.-]+[\s,]+([\d.]+)[\s,]+([\d.]+)\s*"/.exec(root)
  const side = (name: string): string =>
    new RegExp(`\\s${name}="([\\d.]+)(?:px)?"`).exec(root)?.[1] ?? ''
  const bytes = bytesOfBase64((base64 ?? '').slice(0, 64))
  const [width, height] =
    svg !== undefined
      ? [Number(box?.[1] ?? side('width')), Number(box?.[2] ?? side('height'))]
      : imageKindOf(bytes) === 'png'
        ? [number32(bytes, 16), number32(bytes, 20)]
        : [0, 0]
  return width > 0 && height > 0 ? width / height : null
}

/** An image that ships with a template: a drawing as its text, a photograph as base64. */
export const Asset = z
  .strictObject({
    key: Key,
    fileName: ImageName,
    svg: z.string().min(1).max(200_000).optional(),
    base64: z
      .string()
      .min(1)
      .max(200_000)
      .regex(/^[A-Za-z0-9+/]+={0,2}$/, 'base64')
      .optional()
      .describe('The bytes of a PNG, JPEG or WebP'),
    alternativeText: Line(500),
    licence: Line(300),
  })
  .refine(
    ({ svg, base64 }) => (svg === undefined) !== (base64 === undefined),
    'either the text of a drawing in svg or the bytes of a photograph in base64',
  )
  .refine((asset) => {
    const kind = kindOf(asset)
    return kind !== null && (kind === 'svg') === (asset.base64 === undefined)
  }, 'a drawing whose root element is svg, or the bytes of a PNG, JPEG or WebP in base64')
export type Asset = z.output<typeof Asset>

/** How an image is kept on the platform. */
export interface StoredImage {
  /** Its file name there: readable, and another one for every content. */
  name: string
  kind: ImageKind
}

const endings = /(?:\.(?:svg|png|jpe?g|webp))+$/i
/** How the file name of an image of a kind ends. */
export const imageEndings: Record<ImageKind, string> = {
  svg: 'svg',
  png: 'png',
  jpeg: 'jpg',
  webp: 'webp',
}

/**
 * How an image is sent: what identifies it is its content, so that an image of the same name never takes another one's
 * place, and a page taken back shows what it showed.
 */
export const storedImage = rememberOf((asset: Asset): StoredImage => {
  const kind = kindOf(asset) ?? 'png'
  const stem = asset.fileName.replace(endings, '').slice(0, 90) || 'image'
  return {
    name: `${stem}-${shortHash(asset.svg ?? asset.base64 ?? '')}.${imageEndings[kind]}`,
    kind,
  }
})

/** An image within a page that must not ask for anything. */
export const imageData = (asset: Asset): string =>
  asset.base64 === undefined
    ? `data:image/svg+xml,${encodeURIComponent(asset.svg ?? '')}`
    : `data:${mediaTypeOf[storedImage(asset).kind]};base64,${asset.base64}`

/**
 * An image for a template that holds others: the one it holds already where the content is the same, else under a key and a file
 * name that no other has.
 */
export const imageAmong = (
  image: Omit<Asset, 'key'> & { key?: string },
  held: readonly Asset[],
): Asset => {
  const same = held.find(({ svg, base64 }) => svg === image.svg && base64 === image.base64)
  if (same) return same
  const names = new Set(held.map(({ fileName }) => fileName.toLowerCase()))
  const [, stem = '', ending = ''] = /^(.*?)(\.\w+)?$/.exec(image.fileName) ?? []
  let fileName = image.fileName
  for (let n = 2; names.has(fileName.toLowerCase()); n++) fileName = `${stem}-${n}${ending}`
  const key = freshKey(image.key ?? stem, new Set(held.map(({ key }) => key)))
  return { ...image, fileName, key }
}
