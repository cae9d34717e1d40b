import {
  cutAroundMiddle,
  imageEndings,
  imageKindOf,
  imageNameFor,
  type Asset,
} from '@wickerframe/core'

/** What a template holds of an image file, before somebody says what it shows. */
export type ImageContent = Pick<Asset, 'fileName' | 'svg' | 'base64'>

/** The bytes of a file as base64. */
const base64Of = (file: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader()
    reader.addEventListener('load', () => resolve(String(reader.result).replace(/^[^,]*,/, '')))
    reader.addEventListener('error', () => reject(new Error('the image cannot be read')))
    reader.readAsDataURL(file)
  })

/** What an asset holds at most (`Asset` in the core), in letters of a drawing's text or of base64. */
const mostCharacters = 200_000
/** What of a photograph is drawn, in its pixels, and how large and how well. */
interface Drawn {
  left: number
  top: number
  width: number
  height: number
  to: { width: number; height: number }
  quality: number
}

/** Longer sides in pixels that are tried, one after another, until a photograph is small enough. */
const sides = [1600, 1200, 900, 640, 400]
const whole = ({ width, height }: Sides): Drawn[] =>
  sides.map((side) => {
    const scale = Math.min(1, side / Math.max(width, height))
    const to = { width: Math.round(width * scale) || 1, height: Math.round(height * scale) || 1 }
    return { left: 0, top: 0, width, height, to, quality: 0.82 }
  })

/** How well one of a given size is drawn, one after another, until it is small enough. */
const qualities = [0.82, 0.7, 0.55, 0.4, 0.25]
const cutTo =
  (size: Sides) =>
  (of: Sides): Drawn[] =>
    qualities.map((quality) => ({ ...cutAroundMiddle(of, size), to: size, quality }))

interface Sides {
  width: number
  height: number
}

/** A photograph drawn anew, as base64 of a WebP; null: this browser cannot, or it stays too large. */
const drawnAnew = async (file: Blob, ways: (of: Sides) => Drawn[]): Promise<string | null> => {
  if (typeof createImageBitmap !== 'function') return null
  const picture = await createImageBitmap(file)
  try {
    for (const { left, top, width, height, to, quality } of ways(picture)) {
      const canvas = document.createElement('canvas')
      canvas.width = to.width
      canvas.height = to.height
      canvas
        .getContext('2d')
        ?.drawImage(picture, left, top, width, height, 0, 0, to.width, to.height)
      const small = await new Promise<Blob | null>((resolve) =>
        canvas.toBlob(resolve, 'image/webp', quality),
      )
      const base64 = small && (await base64Of(small))
      if (base64 && base64.length <= mostCharacters) return base64
    }
    return null
  } finally {
    picture.close()
  }
}

/** A photograph that has the pixels for it, cut to a size; null: it fits as it is, has too few, or cannot be cut here. */
const cutOnly = (file: Blob, size: Sides, isSmall: boolean): Promise<string | null> =>
  drawnAnew(file, (of) => {
    const fits = isSmall && of.width === size.width && of.height === size.height
    return fits || cutAroundMiddle(of, size).width < size.width ? [] : cutTo(size)(of)
  })

/** The same image, cut around its middle to a size; null: it cannot be here. */
export const cutToSize = async (
  { fileName, base64 }: ImageContent,
  size: Sides,
): Promise<ImageContent | null> => {
  const bytes = Uint8Array.from(atob(base64 ?? ''), (letter) => letter.charCodeAt(0))
  const cut = await drawnAnew(new Blob([bytes]), cutTo(size)).catch(() => null)
  return cut === null ? null : { fileName: asWebp(fileName), base64: cut }
}
const asWebp = (fileName: string): string => `${fileName.replace(/\.\w+$/, '')}.webp`

/**
 * An image as a template holds it, its kind told by what is in it; a photograph that is too large is drawn smaller. In words what
 * is wrong with it otherwise.
 * @param size a photograph of another proportion, or with more pixels, is cut around its middle to it
 */
export const readImageFile = async (file: File, size?: Sides): Promise<ImageContent | string> => {
  try {
    const kind = imageKindOf(new Uint8Array(await file.slice(0, 4000).arrayBuffer()))
    if (kind === null)
      return `${file.name} is not a drawing (SVG) nor a photograph (PNG, JPEG, WebP) by its content. Save it as one of these and choose it again.`
    const name = imageNameFor(file.name)
    const fileName = name.includes('.') ? name : `${name}.${imageEndings[kind]}`
    if (kind === 'svg') {
      const svg = await file.text()
      return svg.length > mostCharacters
        ? `${file.name} has ${Math.ceil(file.size / 1000)} kB; a drawing has at most 200 kB. Save it simpler and choose it again.`
        : { fileName, svg }
    }
    const isSmall = Math.ceil(file.size / 3) * 4 <= mostCharacters
    const cut = size ? await cutOnly(file, size, isSmall) : null
    if (cut !== null) return { fileName: asWebp(fileName), base64: cut }
    const base64 = isSmall ? await base64Of(file) : await drawnAnew(file, whole)
    return base64 === null
      ? `${file.name} has ${Math.ceil(file.size / 1000)} kB, and could not be made smaller here. Save it with at most 150 kB and choose it again.`
      : { fileName: isSmall ? fileName : asWebp(fileName), base64 }
  } catch {
    return `${file.name} cannot be read; choose it again.`
  }
}

/** A picture that came as a `data:` address as a file; null: it is not one. */
export const fileOfAddress = (address: string, name: string): File | null => {
  const [, type = '', base64, content = ''] =
    /^data:(image\/[\w.+-]+)[^,;]*(?:;[^,;]*?)*?(;base64)?,([^]*)$/i.exec(address) ?? []
  if (type === '') return null
  try {
    const text = base64 === undefined ? decodeURIComponent(content) : atob(content)
    const bytes =
      base64 === undefined
        ? new TextEncoder().encode(text)
        : Uint8Array.from(text, (letter) => letter.charCodeAt(0))
    return new File([bytes], name, { type })
  } catch {
    return null
  }
}
