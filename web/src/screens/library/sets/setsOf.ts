import {
  cutAroundMiddle,
  sizeMisfit,
  type Asset,
  type ImageSet,
  type ImageSize,
  type SizeMisfit,
} from '@wickerframe/core'
import type { LibraryEntry } from '@wickerframe/contract'
import { heldBy } from '../libraryKinds.ts'

/** A set as the library has it. */
export interface HeldSet {
  set: ImageSet
  revision: number
}

export const setsOf = (entries: readonly LibraryEntry[]): HeldSet[] =>
  entries.flatMap((entry) => {
    const of = heldBy(entry)
    return of.kind === 'image-set' ? [{ set: of.held, revision: entry.revision }] : []
  })

/** Which images are shown: those of a set by its key, those in none, or all. */
export const inSet =
  (sets: readonly HeldSet[], chosen: string | null) =>
  ({ key }: LibraryEntry): boolean =>
    chosen === null ||
    (chosen === inNoSet
      ? !sets.some(({ set }) => set.images.includes(key))
      : (sets.find(({ set }) => set.key === chosen)?.set.images.includes(key) ?? true))
/** No key of a set. */
export const inNoSet = '-'

export const sidesInWords = ({ width, height }: { width: number; height: number }): string =>
  `${width} × ${height}`

/** How large an image is, in words. */
export const sizeInWords = (found: ImageSize): string =>
  found.isDrawn ? `drawn, ${sidesInWords(found)}` : `${sidesInWords(found)} pixels`

/** What is wrong with the size of an image in a set. */
export const misfitInWords = ({ why, found }: SizeMisfit, { title, size }: ImageSet): string => {
  const wanted = `${title} are ${sidesInWords(size)}`
  switch (why) {
    case 'untold':
      return `It does not say its size; ${wanted}.`
    case 'proportion':
      return `It is ${sizeInWords(found)}, of another proportion; ${wanted}.`
    case 'small':
      return `It has ${sizeInWords(found)}, which are too few; ${wanted}.`
  }
}

/** Whether a photograph has the pixels to be cut to the size of a set. */
export const mayBeCut = ({ found }: SizeMisfit, { size }: ImageSet): boolean =>
  found !== null && !found.isDrawn && cutAroundMiddle(found, size).width >= size.width

/** The images of a set that are not of its size, with how they are not. */
export const misfitsIn = (
  { images, size }: ImageSet,
  held: readonly Asset[],
): { image: Asset; misfit: SizeMisfit }[] =>
  held.flatMap((image) => {
    const misfit = images.includes(image.key) ? sizeMisfit(image, size) : null
    return misfit ? [{ image, misfit }] : []
  })
