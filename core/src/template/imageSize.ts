import { rememberOf } from '../remember/index.ts'
import { bytesOfBase64, imageKindOf, type ImageBytes } from './imageBytes.ts'

/** How large an image is. */
export interface ImageSize {
  /** In pixels; of a drawing in units of its own, which say no more than how they stand to one another. */
  width: number
  height: number
  /** Whether it is drawn, and so as sharp at any size. */
  isDrawn: boolean
}

/** So many bytes from a place. */
const piece = (bytes: Uint8Array, at: number, count: number): number[] => [
  ...bytes.subarray(at, at + count),
]
const number = (digits: number[], count: number): number =>
  digits.length === count ? digits.reduce((sum, byte) => sum * 256 + byte, 0) : NaN
/** A whole number of so many bytes, the most significant first; none where they are not all there. */
const big = (bytes: Uint8Array, at: number, count: number): number =>
  number(piece(bytes, at, count), count)
/** The same, the least significant first. */
const little = (bytes: Uint8Array, at: number, count: number): number =>
  number(piece(bytes, at, count).reverse(), count)

type Sides = readonly [width: number, height: number]

/** Of the header (ISO/IEC 15948, section 11.2.2). */
const pngSides = (bytes: Uint8Array): Sides => [big(bytes, 16, 4), big(bytes, 20, 4)]

/** Markers that begin a frame: SOF0 to SOF15 but DHT, JPG and DAC (ITU-T T.81, table B.1). */
const beginsFrame = (marker: number): boolean =>
  marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker)
/** Markers without a segment: TEM, RST0 to RST7, SOI, EOI (ITU-T T.81, table B.1). */
const standsAlone = (marker: number): boolean =>
  marker === 0x01 || (marker >= 0xd0 && marker <= 0xd9)

/** Of the first frame header (ITU-T T.81, section B.2.2); how a camera was held is not looked at. */
const jpegSides = (bytes: Uint8Array): Sides => {
  let at = 2
  while (at + 9 < bytes.length && bytes[at] === 0xff) {
    const marker = bytes[at + 1] ?? 0
    if (marker === 0xff) at += 1
    else if (standsAlone(marker)) at += 2
    else if (beginsFrame(marker)) return [big(bytes, at + 7, 2), big(bytes, at + 5, 2)]
    else at += 2 + Math.max(2, big(bytes, at + 2, 2) || 0)
  }
  return [0, 0]
}

/** Of the first chunk: extended, lossless (RFC 9649, sections 2.7 and 3.4) or lossy (RFC 6386, section 9.1). */
const webpSides = (bytes: Uint8Array): Sides => {
  const chunk = String.fromCharCode(...bytes.subarray(12, 16))
  if (chunk === 'VP8X') return [little(bytes, 24, 3) + 1, little(bytes, 27, 3) + 1]
  if (chunk === 'VP8L') {
    const bits = little(bytes, 21, 4)
    return [(bits % 2 ** 14) + 1, (Math.floor(bits / 2 ** 14) % 2 ** 14) + 1]
  }
  return chunk === 'VP8 '
    ? [little(bytes, 26, 2) % 2 ** 14, little(bytes, 28, 2) % 2 ** 14]
    : [0, 0]
}

/** Of the view box (SVG 2, section 8.6), else of width and height. */
const drawnSides = (svg: string): Sides => {
  const root = /<svg\b[^>]{0,2000}>/.exec(svg.slice(0, 4000))?.[0] ?? ''
  const box = /\bviewBox="\s*[\d.-]+[\s,]+[\d.-]+[\s,]+([\d.]+)[\s,]+([\d.]+)\s*"/.exec(root)
  const side = (name: string): string =>
    new RegExp(`\\s${name}="([\\d.]+)(?:px)?"`).exec(root)?.[1] ?? ''
  return [Number(box?.[1] ?? side('width')), Number(box?.[2] ?? side('height'))]
}

/** How many letters of base64 are looked at, one after another: most say their size at once, some after a long preface. */
const prefaces = [64, 4096, 65_536, Infinity]

const sidesWithin = (bytes: Uint8Array): Sides => {
  switch (imageKindOf(bytes)) {
    case 'png':
      return pngSides(bytes)
    case 'jpeg':
      return jpegSides(bytes)
    case 'webp':
      return webpSides(bytes)
    default:
      return [0, 0]
  }
}

const photographSides = (base64: string): Sides => {
  for (const most of prefaces) {
    const sides = sidesWithin(bytesOfBase64(base64.slice(0, most)))
    if (sides[0] > 0 || most >= base64.length) return sides
  }
  return [0, 0]
}

/** How large an image is, by what it says of itself; null: it does not. */
export const imageSizeOf = rememberOf((image: ImageBytes): ImageSize | null => {
  const [width, height] =
    image.svg !== undefined ? drawnSides(image.svg) : photographSides(image.base64 ?? '')
  return width > 0 && height > 0 ? { width, height, isDrawn: image.svg !== undefined } : null
})

/** How many times wider an image is than high; null where it is not told. */
export const aspectOf = (image: ImageBytes): number | null => {
  const size = imageSizeOf(image)
  return size ? size.width / size.height : null
}
