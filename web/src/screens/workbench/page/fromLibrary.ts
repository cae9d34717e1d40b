import {
  bringEdits,
  filesLedToBy,
  imagesOfBlock,
  type Asset,
  type Block,
  type HouseText,
  type ImageSet,
  type Template,
  type TemplateEdit,
  type TemplateFile,
} from '@wickerframe/core'
import type { LibraryEntry } from '@wickerframe/contract'

/** What the library holds that a template does not yet, and its pages may show. */
export interface Offered {
  houseTexts: readonly HouseText[]
  assets: readonly Asset[]
  files: readonly TemplateFile[]
  /** Sets in which images are chosen, those of the template as well. */
  sets: readonly ImageSet[]
}
export const nothingOffered: Offered = { houseTexts: [], assets: [], files: [], sets: [] }

/** Images by the set they are in, in the order of the sets; those that are in none come last, under no title where there are no sets. */
export const imagesBySet = (
  images: readonly Asset[],
  sets: readonly ImageSet[],
): { title: string | undefined; images: Asset[] }[] => {
  const setOf = (image: Asset) => sets.find((set) => set.images.includes(image.key))
  const groups = [...sets, undefined].map((set) => ({
    title: set?.title ?? (sets.length > 0 ? 'Others' : undefined),
    images: images.filter((image) => setOf(image) === set),
  }))
  return groups.filter((group) => group.images.length > 0)
}

export const offeredTo = (
  template: Pick<Template, 'houseTexts' | 'assets' | 'files'>,
  library: readonly LibraryEntry[] | undefined,
): Offered => {
  if (!library) return nothingOffered
  const of = <Held>(kind: LibraryEntry['kind'], held: readonly { key: string }[]): Held[] => {
    const known = new Set(held.map(({ key }) => key))
    return library.flatMap((entry) =>
      entry.kind === kind && !known.has(entry.key) ? [entry.document as Held] : [],
    )
  }
  return {
    houseTexts: of<HouseText>('house-text', template.houseTexts),
    assets: of<Asset>('image', template.assets),
    files: of<TemplateFile>('file', template.files),
    sets: of<ImageSet>('image-set', []),
  }
}

/** A template as if it held all that is offered to it: what may be chosen on its pages. */
export const withOffered = (template: Template, offered: Offered): Template => ({
  ...template,
  houseTexts: [...template.houseTexts, ...offered.houseTexts],
  assets: [...template.assets, ...offered.assets],
  files: [...template.files, ...offered.files],
})

/** The edits by which a template holds what a block shows of the library. */
export const heldFor = (block: Block, template: Template, offered: Offered): TemplateEdit[] => {
  const shown = {
    houseTexts: new Set(block.kind === 'house-text' ? [block.houseText] : []),
    assets: new Set(imagesOfBlock(block).map(({ image }) => image)),
    files: filesLedToBy(block),
  }
  return bringEdits(template, {
    houseTexts: offered.houseTexts.filter(({ key }) => shown.houseTexts.has(key)),
    assets: offered.assets.filter(({ key }) => shown.assets.has(key)),
    files: offered.files.filter(({ key }) => shown.files.has(key)),
  })
}
