import { letIn } from '../../allow/index.ts'
import type { ExpectedBlock, ExpectedPart } from '../../expand/index.ts'
import {
  analysePage,
  askedOf,
  blockRegions,
  markedBlock,
  normalHtml,
  refilled,
  sameText,
  withoutMarks,
} from '../../page/index.ts'
import { leftAs } from '../../template/index.ts'
import type { BaseEntry } from '../base.ts'
import { bodyOf, type Bodies } from '../bodies.ts'
import type { FieldStep } from '../mergeCase.ts'
import { spliced, type Splice } from '../splices.ts'
import type { CarryKind } from './carryKinds.ts'

export interface CarriedPageInput {
  /** The page as it stands in the earlier course, and what was deployed of it. */
  present: string
  entry: BaseEntry
  /** The part that takes its place, and its page as the plan writes it. */
  part: ExpectedPart
  written: string
  kinds: ReadonlySet<CarryKind>
  bodies: Bodies
  /** HTML with links into the earlier course leading into the new one. */
  relinked: (html: string) => string
}

export interface CarriedPage {
  html: string
  /** Blocks that hold what came along; what stands in them is theirs. */
  blocks: Set<string>
  /** Whether anything of theirs came along. */
  isTheirs: boolean
  steps: FieldStep[]
  /** Words of theirs that came along. */
  came: string[]
  /** Words of theirs that stay behind, and those that had to come in one piece. */
  stays: string[]
  together: string[]
}

const contactElements: ReadonlySet<string> = new Set([
  'office-hours',
  'instructor-contact',
  'welcome',
])
const kindOf = ({ definition }: ExpectedBlock): CarryKind =>
  definition.kind === 'contact-card' ||
  (definition.kind === 'fill-in' &&
    definition.element !== undefined &&
    contactElements.has(definition.element))
    ? 'contact-cards'
    : 'answers'

/** Whether a block is theirs to word, and what stands beside their words there is what stands there now: people and dates of this course. */
const mayTake = (block: ExpectedBlock, inner: string): boolean => {
  if (leftAs(block.definition) === null) return false
  if (block.definition.kind === 'fill-in') return true
  const given = askedOf(block)?.given ?? []
  const { paragraphs } = analysePage(inner)
  return given.every((words) => paragraphs.some(({ text }) => sameText(text, words)))
}

const wordsOf = (html: string): string => {
  const page = analysePage(html)
  return [
    ...page.paragraphs.map((paragraph) => paragraph.text),
    ...page.images.map((image) => `[${image.alternativeText || image.source}]`),
  ]
    .join(' ')
    .trim()
}

/** Whether each tag that opens in it closes in it: what is not so cannot be put anywhere else as it is. */
const isBalanced = (html: string): boolean => {
  const open: string[] = []
  for (const [, closes, name = '', ends] of html.matchAll(
    /<(\/?)([a-zA-Z][\w-]*)(?:"[^"]*"|'[^']*'|[^'">])*?(\/?)>/g,
  )) {
    const tag = name.toLowerCase()
    if (ends === '/' || /^(?:br|hr|img|input|col|source|wbr)$/.test(tag)) continue
    if (closes === '') open.push(tag)
    else if (open.pop() !== tag) return false
  }
  return open.length === 0
}

/**
 * A page of a new course with what its people wrote on the page it comes from: answers to fill-ins, also beside their prompt,
 * and paragraphs of their own between the blocks. Answers that stand side by side without marks come in one piece. What does
 * not come along is told by its words; nothing of theirs is passed over.
 */
export const carriedPage = (input: CarriedPageInput): CarriedPage => {
  const { present, entry, part, written, kinds, bodies } = input
  /** What of theirs is let into another course; the rest is told as what stays. */
  const relinked = (html: string): string => letIn(input.relinked(withoutMarks(html))).html
  const carried: CarriedPage = {
    html: written,
    blocks: new Set(),
    isTheirs: false,
    steps: [],
    came: [],
    stays: [],
    together: [],
  }
  const looked = entry.blocks.map((block) => ({ key: block.key, html: bodyOf(bodies, block.sent) }))
  const found = blockRegions(present, looked)
  const target = new Map(part.blocks.map((block) => [block.key, block]))
  const places = blockRegions(
    written,
    part.blocks.map((block) => ({ key: block.key, html: block.html })),
  ).regions
  const splices: Splice[] = []
  const leave = (html: string) => {
    const words = wordsOf(html)
    if (words !== '') carried.stays.push(words)
  }
  const came = (html: string, field: string, before: string) => {
    carried.isTheirs = true
    carried.came.push(wordsOf(html))
    carried.stays.push(...letIn(html).refused)
    carried.steps.push({
      field,
      does: 'change',
      base: null,
      present: before,
      wanted: before,
      result: relinked(html),
      decided: null,
      reason:
        field === 'page'
          ? 'the instructor’s own words come along'
          : 'what the instructor filled in comes along',
    })
  }
  /** Puts what they wrote where the new page asks for it. @returns whether it has a place there */
  const answer = (key: string, inner: string): boolean => {
    const block = target.get(key)
    const place = places.get(key)
    if (!block || !place || !kinds.has(kindOf(block))) return false
    const own = written.slice(place.inner.from, place.inner.to)
    const sent = entry.blocks.find((other) => other.key === key)?.sent
    // Of a text with spots in its sentences, only what stands in them comes along.
    const text = mayTake(block, inner)
      ? relinked(inner)
      : leftAs(block.definition) === null && block.asks.length > 0 && sent !== undefined
        ? refilled(bodyOf(bodies, sent), inner, own, block.asks)
        : null
    if (text === null) return false
    splices.push({ ...place.outer, text: markedBlock(key, part.instance, text) })
    carried.blocks.add(key)
    came(inner, `block:${key}`, block.html)
    return true
  }

  const pages = new Map<string, ReturnType<typeof blockRegions>['regions']>()
  const stoodIn = (page: string, key: string): string | null => {
    let regions = pages.get(page)
    if (!regions) pages.set(page, (regions = blockRegions(bodyOf(bodies, page), looked).regions))
    const region = regions.get(key)
    return region?.sure ? bodyOf(bodies, page).slice(region.inner.from, region.inner.to) : null
  }
  for (const block of entry.blocks) {
    const region = found.regions.get(block.key)
    if (!region) continue
    const inner = present.slice(region.inner.from, region.inner.to)
    const before = block.page === null ? null : stoodIn(block.page, block.key)
    if (before !== null && normalHtml(before) === normalHtml(inner)) continue
    if ((before === null && region.asLookedFor()) || wordsOf(inner) === '') continue
    if (!answer(block.key, inner)) leave(inner)
  }
  for (const { keys, span } of found.gaps) {
    const inner = present.slice(span.from, span.to)
    if (wordsOf(inner) === '') continue
    const asks = keys.find((key) => {
      const block = target.get(key)
      return block !== undefined && leftAs(block.definition) === 'asked'
    })
    if (asks !== undefined && isBalanced(inner) && answer(asks, inner))
      carried.together.push(wordsOf(inner))
    else leave(inner)
  }

  // What stands between the blocks is their own.
  const taken = [
    ...[...found.regions].map(([key, region]) => ({ key, ...region.outer })),
    ...found.gaps.map(({ keys, span }) => ({ key: keys[0] ?? '', ...span })),
  ].sort((a, b) => a.from - b.from)
  let at = 0
  let behind: string | null = null
  for (const stretch of [...taken, { key: null, from: present.length, to: present.length }]) {
    const html = present.slice(at, Math.max(at, stretch.from)).trim()
    if (html !== '' && wordsOf(html) !== '') {
      if (kinds.has('answers') && isBalanced(html)) {
        const anchor = behind === null ? undefined : places.get(behind)
        const first = Math.min(
          ...[...places.values()].map((region) => region.outer.from),
          written.length,
        )
        const where = anchor ? anchor.outer.to : behind === null ? first : written.length
        splices.push({ from: where, to: where, text: `\n${relinked(html)}\n` })
        came(html, 'page', '')
      } else leave(html)
    }
    at = Math.max(at, stretch.to)
    behind = stretch.key
  }
  return { ...carried, html: splices.length === 0 ? written : spliced(written, splices) }
}

/** Words of theirs on a page that has no place in the new course. */
export const wordsLeft = (present: string, entry: BaseEntry, bodies: Bodies): string[] => {
  if (entry.page !== null && bodyOf(bodies, entry.page) === present) return []
  const { regions } = blockRegions(
    present,
    entry.blocks.map((block) => ({ key: block.key, html: bodyOf(bodies, block.sent) })),
  )
  // Our own words are cut out; what is left is theirs.
  const ours = [...regions.values()]
    .filter((region) => region.asLookedFor())
    .sort((a, b) => a.outer.from - b.outer.from)
  let at = 0
  let theirs = ''
  for (const { outer } of ours) {
    theirs += `${present.slice(at, Math.max(at, outer.from))} `
    at = Math.max(at, outer.to)
  }
  const words = wordsOf(theirs + present.slice(at))
  return words === '' ? [] : [words]
}
