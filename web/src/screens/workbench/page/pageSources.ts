import type { Asset } from '@wickerframe/core'

/** What a page can link to and show. */
export interface PageSources {
  parts: readonly { key: string; name: string }[]
  assets: readonly Asset[]
}
