import { z } from 'zod'
import { Line, shortHash } from '../document/index.ts'
import { rememberOf } from '../remember/index.ts'
import { freshKey } from './freshKey.ts'
import {
  ascii,
  bytesOfBase64,
  imageKindOf,
  mediaTypeOf,
  type ImageBytes,
  type ImageKind,
} from './imageBytes.ts'
import { Key } from './words.ts'

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

const kindOf = ({ svg = '', base64 }: ImageBytes): ImageKind | null =>
  imageKindOf(
    base64 === undefined
      ? Uint8Array.from(ascii(svg.slice(0, 4000)))
      : bytesOfBase64(base64.slice(0, 64)),
  )

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
