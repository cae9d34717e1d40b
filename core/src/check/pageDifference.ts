import { everyCourseItem } from '../course/index.ts'
import { success, type Result } from '../document/index.ts'
import type { ExpectedBlock } from '../expand/index.ts'
import {
  analysePage,
  blockHtmlOn,
  blockRegions,
  readableDifference,
  readBlocks,
  revisionInForce,
  type BlockReading,
  type BlockState,
  type WordRun,
} from '../page/index.ts'
import { blockKindWords, leftAs } from '../template/index.ts'
import { pairedPages, type PagesOf } from './pairedPages.ts'

/** How one block of the template stands in a page, for people who look at the two side by side. */
export interface BlockDifference {
  key: string
  kind: ExpectedBlock['kind']
  state: BlockState | 'guidance' | 'outdated'
  /** What the template expects there, in words. */
  expected: string
  /** From what is expected to what stands there, word by word; only for what is altered or outdated. */
  difference: WordRun[]
}

/** A page in stretches of its own HTML, in order; a stretch that is a block of the template says how it stands. */
export interface PageDifference {
  name: string
  /** Instance of the part it stands for, or null: nothing expects it. */
  part: string | null
  stretches: { html: string; block: BlockDifference | null }[]
  /** Blocks that are not in the page. */
  missing: BlockDifference[]
  notRead: string | null
}

const wordsOf = (html: string): string =>
  analysePage(html)
    .paragraphs.map((paragraph) => paragraph.text)
    .join(' ')

const differenceOf = (reading: BlockReading, onDate: string): BlockDifference => {
  const { block, state, text } = reading
  const { definition } = block
  const expected =
    definition.kind === 'fill-in'
      ? (definition.label ?? definition.prompt)
      : leftAs(definition) === 'asked'
        ? ('label' in definition && definition.label) || blockKindWords(block.kind)
        : wordsOf(blockHtmlOn(block, onDate))
  const told = { key: block.key, kind: block.kind, expected }
  if (block.kind === 'guidance-note')
    return {
      ...told,
      state: state === 'missing' || text === '' ? 'missing' : 'guidance',
      difference: [],
    }
  const outdated =
    block.houseText &&
    reading.revision !== null &&
    reading.revision !== revisionInForce(block.houseText, onDate)?.number
  if (outdated)
    return { ...told, state: 'outdated', difference: readableDifference(expected, text) }
  // Words that are the instructor's to choose are no departure.
  if (state === 'altered' && leftAs(definition) === 'proposed')
    return { ...told, state: 'filled', difference: [] }
  return {
    ...told,
    state,
    difference: state === 'altered' ? readableDifference(expected, text) : [],
  }
}

/** What in a page differs from what the template expects there, in the page's own order. Null when there is no such page. */
export const pageDifference = (check: PagesOf, itemId: string): Result<PageDifference | null> => {
  const read = pairedPages(check)
  if (!read.ok) return read
  const item = everyCourseItem(check.course).find((placed) => placed.item.id === itemId)?.item
  if (!item || item.html === null) return success(null)
  const part = read.value.pages.find((page) => page.item.id === itemId)?.part ?? null
  const page = analysePage(item.html)
  if (!part || page.notRead !== null)
    return success({
      name: item.name,
      part: part?.instance ?? null,
      stretches: [{ html: item.html, block: null }],
      missing: [],
      notRead: page.notRead,
    })
  const differences = new Map(
    readBlocks(part.blocks, page, check.asOf).map((reading) => [
      reading.block.key,
      differenceOf(reading, check.asOf),
    ]),
  )
  const { regions } = blockRegions(
    item.html,
    part.blocks.map((block) => ({ key: block.key, html: blockHtmlOn(block, check.asOf) })),
  )
  const placed = [...regions]
    .flatMap(([key, { outer }]) => {
      const block = differences.get(key)
      return block && block.state !== 'missing' ? [{ ...outer, block }] : []
    })
    .sort((a, b) => a.from - b.from)
  const stretches: PageDifference['stretches'] = []
  let at = 0
  for (const { from, to, block } of placed) {
    if (from < at) continue
    if (from > at) stretches.push({ html: item.html.slice(at, from), block: null })
    stretches.push({ html: item.html.slice(from, to), block })
    at = to
  }
  if (at < item.html.length) stretches.push({ html: item.html.slice(at), block: null })
  const shown = new Set(placed.map(({ block }) => block.key))
  return success({
    name: item.name,
    part: part?.instance ?? null,
    stretches,
    notRead: null,
    missing: [...differences.values()].filter(
      (difference) =>
        difference.state === 'missing' &&
        !shown.has(difference.key) &&
        difference.kind !== 'guidance-note',
    ),
  })
}
