import { imageEndings, imageKindOf, imageNameFor, type Asset } from '@wickerframe/core'

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
/** Longer sides in pixels that are tried, one after another, until a photograph is small enough. */
const sides = [1600, 1200, 900, 640, 400]

/** A photograph drawn smaller, as base64 of a WebP; null: this browser cannot, or it stays too large. */
const shrunk = async (file: Blob): Promise<string | null> => {
  if (typeof createImageBitmap !== 'function') return null
  const picture = await createImageBitmap(file)
  try {
    for (const side of sides) {
      const scale = Math.min(1, side / Math.max(picture.width, picture.height))
      const canvas = document.createElement('canvas')
      canvas.width = Math.max(1, Math.round(picture.width * scale))
      canvas.height = Math.max(1, Math.round(picture.height * scale))
      canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height)
      const small = await new Promise<Blob | null>((resolve) =>
        canvas.toBlob(resolve, 'image/webp', 0.82),
      )
      const base64 = small && (await base64Of(small))
      if (base64 && base64.length <= mostCharacters) return base64
    }
    return null
  } finally {
    picture.close()
  }
}

/**
 * An image as a template holds it, its kind told by what is in it; a photograph that is too large is drawn smaller. In words what
 * is wrong with it otherwise.
 */
export const readImageFile = async (file: File): Promise<ImageContent | string> => {
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
    const base64 = isSmall ? await base64Of(file) : await shrunk(file)
    return base64 === null
      ? `${file.name} has ${Math.ceil(file.size / 1000)} kB, and could not be made smaller here. Save it with at most 150 kB and choose it again.`
      : { fileName: isSmall ? fileName : `${fileName.replace(/\.\w+$/, '')}.webp`, base64 }
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
