import type { ExpectedBlock } from '../expand/index.ts'
import { analysePage, plainText, type PageFacts, type Paragraph } from './analysePage.ts'
import { blockHtmlOn } from './renderPage.ts'
import { shareSurviving } from './wordDifference.ts'

/** How a block of the template stands in a page. */
export type BlockState =
  | 'unchanged'
  | 'altered'
  | 'missing'
  | 'unfilled'
  | 'filled'
  | 'prompt-beside-answer'

export interface BlockReading {
  block: ExpectedBlock
  state: BlockState
  /** The words found in its place; empty when missing. */
  text: string
  /** Share of the expected words that are still there, 0 to 1; told of guidance notes and of what is unchanged only. */
  surviving: number
  /** Whether a marker of the platform's copy named it; otherwise it was known by its content. */
  byMarker: boolean
  /** For a house text that matches a revision word for word: its number. */
  revision: number | null
}

const keptParagraphs = new Map<string, Paragraph[]>()
const mostKept = 20_000
/** The paragraphs of what deployment writes, kept by the HTML: blocks are the same in many courses and in every check. */
const paragraphsOf = (html: string): Paragraph[] => {
  let paragraphs = keptParagraphs.get(html)
  if (!paragraphs) {
    if (keptParagraphs.size >= mostKept) keptParagraphs.clear()
    keptParagraphs.set(html, (paragraphs = analysePage(html).paragraphs))
  }
  return paragraphs
}

const join = (paragraphs: readonly Paragraph[]): string => paragraphs.map((one) => one.text).join(' ')
/** Texts that differ only in where paragraphs and spaces fall are the same text. */
const squeezed = (text: string): string => text.replace(/\s+/g, '')

/** Reads one block from the paragraphs that belong to it. */
const readOne = (block: ExpectedBlock, found: readonly Paragraph[], byMarker: boolean, hasImage: boolean, onDate: string): BlockReading => {
  const wanted = join(paragraphsOf(blockHtmlOn(block, onDate)))
  const text = join(found)
  const reading = (state: BlockState, extra: Partial<BlockReading> = {}): BlockReading => ({
    block, state, text, surviving: state === 'unchanged' ? 1 : block.kind === 'guidance-note' ? shareSurviving(wanted, text) : 0, byMarker, revision: null, ...extra,
  })
  const definition = block.definition
  if (definition.kind === 'fill-in') {
    const label = plainText(definition.label ?? '')
    const answer = plainText(label !== '' && text.startsWith(label) ? text.slice(label.length) : text)
    if (answer === '') return reading(hasImage ? 'filled' : 'unfilled', { text: answer })
    const prompts = [definition.prompt, ...definition.earlierPrompts].map(plainText)
    if (prompts.some((prompt) => squeezed(answer) === squeezed(prompt))) return reading('unfilled', { text: answer })
    if (prompts.some((prompt) => answer.includes(prompt))) return reading('prompt-beside-answer', { text: answer })
    return reading('filled', { text: answer })
  }
  if (block.houseText) {
    const revision = block.houseText.revisions.findLast((one) => squeezed(join(paragraphsOf(one.html))) === squeezed(text))
    if (revision) return reading('unchanged', { revision: revision.number })
  }
  if (found.length === 0 && !hasImage) return reading(definition.kind === 'banner' || wanted !== '' ? 'missing' : 'unchanged')
  return reading(squeezed(text) === squeezed(wanted) ? 'unchanged' : 'altered')
}

const leastShareToKnow = 0.5

/**
 * Tells how each expected block stands in a page: by its marker where the platform kept it, otherwise by its content
 * (paragraphs that are word for word the same first, then the most alike between those already known).
 * @param onDate decides which revision of a house text is expected, `YYYY-MM-DD`
 */
export const readBlocks = (expected: readonly ExpectedBlock[], page: PageFacts, onDate: string): BlockReading[] => {
  const marked = new Set(page.markers)
  const unmarked = expected.filter((block) => !marked.has(block.key))
  const byContent = unmarked.length > 0 ? placeByContent(expected, unmarked, page, onDate) : new Map<string, Paragraph[]>()
  return expected.map((block) => {
    const byMarker = marked.has(block.key)
    const found = byMarker ? page.paragraphs.filter((one) => one.block === block.key) : (byContent.get(block.key) ?? [])
    const hasImage = byMarker ? page.images.some((image) => image.block === block.key) : block.kind === 'banner' && page.images.some((image) => image.block === null)
    const known = byMarker || byContent.has(block.key) || hasImage
    if (!known) return { block, state: 'missing', text: '', surviving: 0, byMarker, revision: null }
    return readOne(block, found, byMarker, hasImage, onDate)
  })
}

/** Which unmarked paragraphs belong to which unmarked block. A block that is not found has no entry. */
const placeByContent = (expected: readonly ExpectedBlock[], unmarked: readonly ExpectedBlock[], page: PageFacts, onDate: string): Map<string, Paragraph[]> => {
  const owner = new Map<number, string>()
  const candidates = new Map<string, number[]>()
  page.paragraphs.forEach((paragraph, i) => {
    if (paragraph.block === null) candidates.set(paragraph.text, [...(candidates.get(paragraph.text) ?? []), i])
  })
  const claim = (text: string, key: string): boolean => {
    const next = candidates.get(text)?.find((i) => !owner.has(i))
    if (next === undefined) return false
    owner.set(next, key)
    return true
  }
  const wantedOf = (block: ExpectedBlock) => paragraphsOf(blockHtmlOn(block, onDate))
  for (const block of unmarked) {
    const texts = [wantedOf(block), ...(block.houseText?.revisions.map((one) => paragraphsOf(one.html)) ?? [])]
    for (const paragraphs of texts) {
      let any = false
      for (const paragraph of paragraphs) any = claim(paragraph.text, block.key) || any
      if (any) break
    }
  }
  // What is left lies in gaps between known paragraphs; each gap belongs to the blocks expected between its neighbours.
  const order = new Map(expected.map((block, i) => [block.key, i]))
  const placeOf = (i: number): number | null => {
    const key = owner.get(i) ?? page.paragraphs[i]?.block
    return key === undefined || key === null ? null : (order.get(key) ?? null)
  }
  let i = 0
  while (i < page.paragraphs.length) {
    if (placeOf(i) !== null || page.paragraphs[i]?.block) {
      i += 1
      continue
    }
    let end = i
    while (end < page.paragraphs.length && placeOf(end) === null && !page.paragraphs[end]?.block) end += 1
    const before = i > 0 ? (placeOf(i - 1) ?? -1) : -1
    const after = end < page.paragraphs.length ? (placeOf(end) ?? expected.length) : expected.length
    // The block just before may have gone on: its own label or first lines are known, the rest was rewritten.
    const open = expected.filter((block, at) => at >= before && at <= after && !marked(page, block))
    for (let p = i; p < end; p++) {
      const text = page.paragraphs[p]?.text ?? ''
      const near = open
        .map((block) => ({ block, share: Math.max(0, ...wantedOf(block).map((one) => Math.min(shareSurviving(one.text, text), shareSurviving(text, one.text) * 1.5))) }))
        .filter((one) => one.share >= leastShareToKnow)
        .sort((a, b) => b.share - a.share)[0]
      // A fill-in takes what stands in its place, whatever the words.
      const previous = owner.get(p - 1)
      const goesOn = open.find((block) => block.key === previous && block.kind === 'fill-in')
      const empty = open.find((block) => block.kind === 'fill-in' && (order.get(block.key) ?? 0) > before && ![...owner.values()].includes(block.key))
      const taken = near?.block ?? goesOn ?? empty
      if (taken) owner.set(p, taken.key)
    }
    i = end
  }
  const placed = new Map<string, Paragraph[]>()
  for (const [index, key] of [...owner].sort(([a], [b]) => a - b)) {
    const paragraph = page.paragraphs[index]
    if (paragraph) placed.set(key, [...(placed.get(key) ?? []), paragraph])
  }
  return placed
}

const marked = (page: PageFacts, block: ExpectedBlock): boolean => page.markers.includes(block.key)
