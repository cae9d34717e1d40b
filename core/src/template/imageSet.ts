import { z } from 'zod'
import { Line } from '../document/index.ts'
import type { ImageBytes } from './imageBytes.ts'
import { imageSizeOf, type ImageSize } from './imageSize.ts'
import { Key } from './words.ts'

const side = z.number().int().min(16).max(4000)

/** Images of the library that go together, all of one size: the banners, the signs, the pictures of the weeks. */
export const ImageSet = z
  .strictObject({
    key: Key,
    title: Line(200),
    size: z
      .strictObject({ width: side, height: side })
      .describe('In pixels; drawings have its proportion only'),
    images: z.array(Key).max(500).describe('Keys of the images'),
  })
  .refine(({ images }) => new Set(images).size === images.length, {
    path: ['images'],
    message: 'each image once',
  })
export type ImageSet = z.output<typeof ImageSet>
type SetSize = ImageSet['size']

/** How much the proportion of an image may differ from that of its set, as a share of it: what rounding to pixels costs. */
const tolerance = 0.02

/** Why an image does not have the size of a set: another proportion, fewer pixels, or it does not say its size. */
export type SizeMisfit =
  | { why: 'proportion' | 'small'; found: ImageSize }
  | { why: 'untold'; found: null }

/** Whether sides stand to one another as those of a set. */
const isOfProportion = (found: ImageSize, { width, height }: SetSize): boolean =>
  Math.abs((found.width * height) / (found.height * width) - 1) <= tolerance

/**
 * Holds an image against the size of a set. A photograph with more pixels than are asked for is of its size when its proportion is.
 * @returns null where it fits
 */
export const sizeMisfit = (image: ImageBytes, size: SetSize): SizeMisfit | null => {
  const found = imageSizeOf(image)
  if (!found) return { why: 'untold', found: null }
  if (!isOfProportion(found, size)) return { why: 'proportion', found }
  return !found.isDrawn && found.width < size.width * (1 - tolerance)
    ? { why: 'small', found }
    : null
}

/** The largest stretch around the middle of an image that has the proportion of a set, in pixels of the image. */
export const cutAroundMiddle = (
  { width, height }: Pick<ImageSize, 'width' | 'height'>,
  size: SetSize,
): { left: number; top: number; width: number; height: number } => {
  const scale = Math.min(width / size.width, height / size.height)
  const cut = { width: size.width * scale, height: size.height * scale }
  return { left: (width - cut.width) / 2, top: (height - cut.height) / 2, ...cut }
}
