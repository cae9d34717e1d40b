import type { Asset } from '@wickerframe/core'
import type { Offered } from './fromLibrary.ts'

/** What a page can link to and show. */
export interface PageSources {
  parts: readonly { key: string; name: string }[]
  /** Files that it can lead to. */
  files?: readonly { key: string; title: string }[]
  assets: readonly Asset[]
  /** What of the library can be taken. */
  library?: Offered
  /** Puts an image into the template; without it none can be put in. */
  onAsset?: (asset: Asset) => void
  /** Told when pictures that were pasted are left out, as nobody said what they show. */
  onUndescribed?: (pictures: number) => void
}

/** Data of the images, by their file name in the template. */
export const imageSource = (assets: readonly Asset[], source: string): Asset | null =>
  assets.find((asset) => source === `asset:${asset.fileName}`) ?? null
