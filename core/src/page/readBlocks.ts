import { grouped } from '../grouped/index.ts'
import type { ExpectedBlock } from '../expand/index.ts'
import { rememberOf } from '../remember/index.ts'
import type { PageFacts, PageLink } from './analysePage.ts'
import { placeByContent } from './placeByContent.ts'
import { readBlock, type BlockReading, type Holding } from './readBlock.ts'

/** What stands in a page besides its paragraphs, by the marked block it stands in; null for what stands in none. */
const standing = <T extends { block: string | null }>(
  list: readonly T[],
): ((block: string | null) => readonly T[]) => {
  if (list.length === 0) return () => list
  const groups = grouped(list, (region) => region.block)
  return (block) => groups.get(block) ?? []
}

/** How blocks stand in a page on a day, as long as both are kept: most pages are the same at the next check. */
const readings = rememberOf(
  (_page: PageFacts) =>
    new WeakMap<readonly ExpectedBlock[], { onDate: string; read: readonly BlockReading[] }>(),
)

/**
 * Tells how each expected block stands in a page: by its marker where the platform kept it, otherwise by its content
 * (paragraphs that are word for word the same first, then the most alike between those already known).
 * @param onDate decides which revision of a house text is expected, `YYYY-MM-DD`
 */
export const readBlocks = (
  expected: readonly ExpectedBlock[],
  page: PageFacts,
  onDate: string,
): readonly BlockReading[] => {
  const known = readings(page)
  const before = known.get(expected)
  if (before?.onDate === onDate) return before.read
  const read = readAnew(expected, page, onDate)
  known.set(expected, { onDate, read })
  return read
}

const readAnew = (
  expected: readonly ExpectedBlock[],
  page: PageFacts,
  onDate: string,
): BlockReading[] => {
  const marked = new Set(page.markers)
  const unmarked = expected.filter((block) => !marked.has(block.key))
  const byContent =
    unmarked.length > 0
      ? placeByContent(expected, unmarked, page, onDate)
      : new Map<string, number[]>()
  const indexesByMarker = new Map<string, number[]>()
  page.paragraphs.forEach((paragraph, i) => {
    if (paragraph.block === null) return
    const indexes = indexesByMarker.get(paragraph.block)
    if (indexes) indexes.push(i)
    else indexesByMarker.set(paragraph.block, [i])
  })
  const images = standing(page.images)
  const links = standing(page.links)
  const media = standing(page.media)
  const tables = standing(page.tables)
  const lists = standing(page.lists)
  return expected.map((block) => {
    const byMarker = marked.has(block.key)
    const places = byMarker
      ? (indexesByMarker.get(block.key) ?? [])
      : (byContent.get(block.key) ?? [])
    const first = places[0] ?? Infinity
    const end = (places.at(-1) ?? -Infinity) + 1
    const held = <T extends { paragraph: number }>(
      of: (block: string | null) => readonly T[],
      isBelow: (what: T) => boolean,
    ): readonly T[] =>
      byMarker
        ? of(block.key)
        : of(null).filter(
            (what) =>
              block.kind === 'banner' ||
              (what.paragraph >= first && what.paragraph <= end && !isBelow(what)),
          )
    /** What belongs to the paragraph below, where it does not stand alone between the two. */
    const startsBelow = ({ paragraph }: { paragraph: number }) => paragraph === end
    const isSaidBelow = (link: PageLink) =>
      link.text !== '' &&
      startsBelow(link) &&
      (page.paragraphs[end]?.text.includes(link.text) ?? false)
    const holding: Holding = {
      images: held(images, () => false).length,
      links: held(links, isSaidBelow),
      media: held(media, () => false).length,
      tables: held(tables, startsBelow).length,
      lists: held(lists, startsBelow).length,
    }
    const known = byMarker || places.length > 0 || (block.kind === 'banner' && holding.images > 0)
    if (!known)
      return {
        block,
        state: 'missing',
        text: '',
        surviving: 0,
        byMarker,
        revision: null,
        stillAsks: [],
        ofType: true,
        shapeLost: null,
        paragraphs: [],
      }
    const imageBeside = images(null).some((image) => Math.abs(image.paragraph - end) <= 1)
    return readBlock(
      block,
      places.flatMap((i) => page.paragraphs[i] ?? []),
      places,
      byMarker,
      holding,
      imageBeside,
      onDate,
    )
  })
}
