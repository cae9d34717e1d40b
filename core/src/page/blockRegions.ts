import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'
import { withoutQuery } from '../document/index.ts'
import { remember } from '../remember/index.ts'
import { blockMarker, plainText } from './analysePage.ts'

type Node = DefaultTreeAdapterTypes.ChildNode
type Element = DefaultTreeAdapterTypes.Element

/** Offsets into the HTML: from, included, and to, excluded. */
export interface Span {
  from: number
  to: number
}

/** Where a block stands in a page, by source offset. */
export interface BlockRegion {
  outer: Span
  /** Without the marker's own tags, where there are any. */
  inner: Span
  /** Whether the marker of deployment stands around it. */
  marked: boolean
  /**
   * Whether it was told by its mark or by what it says. Otherwise it is only what stands where it would stand, and may be
   * somebody's own: it may be read, never written over, moved or taken out.
   */
  sure: boolean
  /** Whether its words are those that were looked for, space aside. */
  asLookedFor: () => boolean
}

export interface BlockRegions {
  regions: Map<string, BlockRegion>
  /** Blocks of which more than one place could be the right one. */
  doubtful: Set<string>
  /** Stretches that several blocks could stand in, none of them told from the others: what stands there, and whose it could be. */
  gaps: { keys: string[]; span: Span }[]
}

const isElement = (node: Node): node is Element => 'tagName' in node
const attributeOf = (element: Element, name: string): string | undefined =>
  element.attrs.find((attr) => attr.name === name)?.value
const fileName = (address: string): string =>
  withoutQuery(address)
    .split(/[/:]/)
    .at(-1)
    // The same image with another content is looked for in the same place.
    ?.replace(/-[0-9a-f]{16}(?=\.\w+$)/, '') ?? ''

/** What a stretch of a page says: its words without space, and the file names of its images. */
const saying = (nodes: readonly Node[]): string => {
  let said = ''
  const read = (node: Node) => {
    if (node.nodeName === '#text') said += (node as DefaultTreeAdapterTypes.TextNode).value
    if (!isElement(node)) return
    if (node.tagName === 'img') said += `[${fileName(attributeOf(node, 'src') ?? '')}]`
    node.childNodes.forEach(read)
  }
  nodes.forEach(read)
  return plainText(said).replace(/\s+/g, '')
}

const sayingOf = remember(4000, (html: string): string => saying(parseFragment(html).childNodes))

/** Elements that platforms put around what they are given, without a meaning of their own. */
const wrappers = new Set(['div', 'section', 'article', 'main', 'span', 'body'])
const spanOf = (first: Node, last: Node): Span | null => {
  const from = first.sourceCodeLocation?.startOffset
  const to = last.sourceCodeLocation?.endOffset
  return from === undefined || to === undefined ? null : { from, to }
}
const innerOf = (element: Element, outer: Span): Span => ({
  from: element.sourceCodeLocation?.startTag?.endOffset ?? outer.from,
  to: element.sourceCodeLocation?.endTag?.startOffset ?? outer.to,
})

const deepestRead = 200

/** A tag with its attributes, quoted ones whole. */
const tags = /<(\/?)([a-zA-Z][^\s/>]*)((?:"[^"]*"|'[^']*'|[^'"<>])*)>/g
const markerIn = new RegExp(`\\s${blockMarker}="([^"]*)"`)
/** What a scan of tags cannot be sure of, and a parser can. */
const needsParser =
  /<!--|<!\[|<(?:script|style|textarea|title|template|svg|math|plaintext|xmp|noscript|iframe|table)\b/i

const withoutEnd = new Set(
  'area base br col embed hr img input link meta param source track wbr'.split(' '),
)
const headings = new Set(['h1', 'h2', 'h3', 'h4', 'h5', 'h6'])
const listItems = new Set(['li', 'dd', 'dt'])
const lists = new Set(['ul', 'ol', 'dl', 'menu'])
const neverInItself = new Set(['a', 'button', 'form', 'nobr', 'option', 'select'])

/**
 * Whether a parser would close something that stands open when it meets this start tag, or a later end tag would close more
 * than it seems to (WHATWG HTML, 13.2.6.4.7): a heading in a heading, an item in an item, a link in a link.
 */
const closesAnother = (tag: string, open: readonly { tag: string }[]): boolean => {
  if (headings.has(tag)) return open.some((outer) => headings.has(outer.tag))
  if (neverInItself.has(tag)) return open.some((outer) => outer.tag === tag)
  if (!listItems.has(tag)) return false
  const nearest = open.findLast((outer) => listItems.has(outer.tag) || lists.has(outer.tag))
  return nearest !== undefined && listItems.has(nearest.tag)
}

/**
 * Marked blocks told from the tags alone, where that is certain: every tag is closed in its turn, and none closes another.
 * null where the page has to be parsed.
 */
const scanned = (
  html: string,
  wanted: ReadonlyMap<string, { html: string }>,
  needed: ReadonlySet<string>,
): BlockRegions | null => {
  if (needsParser.test(html)) return null
  const regions = new Map<string, BlockRegion>()
  const open: { tag: string; key: string | undefined; from: number; inner: number }[] = []
  for (const match of html.matchAll(tags)) {
    const [whole, closes, name = '', attributes = ''] = match
    const tag = name.toLowerCase()
    if (tag !== 'div' && attributes.includes(blockMarker)) return null
    if (closes === '') {
      if (closesAnother(tag, open)) return null
      if (!withoutEnd.has(tag))
        open.push({
          tag,
          key: markerIn.exec(attributes)?.[1],
          from: match.index,
          inner: match.index + whole.length,
        })
      continue
    }
    const top = open.pop()
    if (top?.tag !== tag) return null
    const { key } = top
    if (key === undefined) continue
    if (regions.has(key)) return null
    const inner = { from: top.inner, to: match.index }
    if (wanted.has(key))
      regions.set(key, {
        outer: { from: top.from, to: match.index + whole.length },
        inner,
        marked: true,
        sure: true,
        asLookedFor: () =>
          sayingOf(html.slice(inner.from, inner.to)) === sayingOf(wanted.get(key)?.html ?? ''),
      })
  }
  return open.length === 0 && [...needed].every((key) => regions.has(key))
    ? { regions, doubtful: new Set(), gaps: [] }
    : null
}

/**
 * Finds the blocks of a page by source offset: by their markers where the platform kept them; otherwise by what they
 * say, in the order in which they are looked for, and a block that says something else by the gap between its neighbours.
 * @param blocks in the order they stood in, each with the HTML it had when it was last known
 * @param needed where only some are asked for: a page in which those are marked plainly is not parsed
 */
export const blockRegions = (
  html: string,
  blocks: readonly { key: string; html: string }[],
  needed: ReadonlySet<string> | null = null,
): BlockRegions => {
  const wanted = new Map(blocks.map((block) => [block.key, block]))
  const quick = needed && scanned(html, wanted, needed)
  if (quick) return quick
  const fragment = parseFragment(html, { sourceCodeLocationInfo: true })
  const regions = new Map<string, BlockRegion>()
  const doubtful = new Set<string>()

  const findMarked = (nodes: readonly Node[], depth: number) => {
    for (const node of nodes) {
      if (!isElement(node)) continue
      const key = attributeOf(node, blockMarker)
      const outer = key === undefined ? null : spanOf(node, node)
      if (key !== undefined && outer && wanted.has(key)) {
        if (regions.has(key)) doubtful.add(key)
        else
          regions.set(key, {
            outer,
            inner: innerOf(node, outer),
            marked: true,
            sure: true,
            asLookedFor: () => saying(node.childNodes) === sayingOf(wanted.get(key)?.html ?? ''),
          })
      } else if (depth < deepestRead) findMarked(node.childNodes, depth + 1)
    }
  }
  findMarked(fragment.childNodes, 0)
  const open = blocks.filter((block) => !regions.has(block.key))
  if (open.length === 0) return { regions, doubtful, gaps: [] }

  // Lists of siblings in which blocks may stand side by side: those of the page, and those of wrappers around them.
  const lists: Node[][] = []
  const openLists = (nodes: readonly Node[], depth: number) => {
    const list = nodes.filter(
      (node) => isElement(node) || plainText('value' in node ? String(node.value) : '') !== '',
    )
    if (list.length > 0) lists.push(list)
    for (const node of list)
      if (
        isElement(node) &&
        wrappers.has(node.tagName) &&
        attributeOf(node, blockMarker) === undefined &&
        depth < deepestRead
      )
        openLists(node.childNodes, depth + 1)
  }
  openLists(fragment.childNodes, 0)
  for (const list of lists) {
    const said = list.map((node) => saying([node]))
    for (let i = 0; i < list.length; i++) {
      const first = list[i]
      if (!first || (said[i] ?? '') === '') continue
      for (const block of open) {
        if (regions.has(block.key)) continue
        const looked = sayingOf(block.html)
        if (looked === '' || !looked.startsWith(said[i] ?? '')) continue
        let text = ''
        let j = i
        while (j < list.length && text.length < looked.length) text += said[j++] ?? ''
        const last = list[j - 1]
        const outer = last && text === looked ? spanOf(first, last) : null
        if (!outer) continue
        const alone = j === i + 1 && isElement(first) && wrappers.has(first.tagName)
        regions.set(block.key, {
          outer,
          inner: alone ? innerOf(first, outer) : outer,
          marked: false,
          sure: true,
          asLookedFor: () => true,
        })
        i = j - 1
        break
      }
    }
  }
  // Where the marks of others stand, one that is not there was taken out; what stands in its place is somebody's own.
  const isMarked = [...regions.values()].some((region) => region.marked)
  const gaps = isMarked ? [] : placeInGaps(html, blocks, lists, regions)
  for (const { keys } of gaps) for (const key of keys) doubtful.add(key)
  return { regions, doubtful, gaps }
}

const wordsIn = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []

/** Whether at least half of the words of one text, and two of them, stand in another. */
const isMostlyIn = (words: readonly string[], others: ReadonlySet<string>): boolean => {
  const shared = words.filter((word) => others.has(word)).length
  return shared * 2 >= words.length && shared >= Math.min(2, words.length) && shared > 0
}

const textOf = (node: Node): string =>
  node.nodeName === '#text'
    ? (node as DefaultTreeAdapterTypes.TextNode).value
    : isElement(node)
      ? node.childNodes.map(textOf).join(' ')
      : ''

/** Of nodes that stand side by side, those that say most of what a block said: its altered text without what was written beside it; null where that cannot be told. */
const alteredAmong = (nodes: readonly Node[], html: string): Span | null => {
  const said = new Set(wordsIn(parseFragment(html).childNodes.map(textOf).join(' ')))
  const alike = nodes.flatMap((node, i) => (isMostlyIn(wordsIn(textOf(node)), said) ? [i] : []))
  const from = alike[0]
  const to = alike.at(-1)
  if (from === undefined || to === undefined || to - from + 1 !== alike.length) return null
  const first = nodes[from]
  const last = nodes[to]
  return first && last ? spanOf(first, last) : null
}

/**
 * Gives a block that says something else what is most like it in the gap between its neighbours, where it is the only one
 * that can stand there; where nothing is like it, the whole gap, of which nobody can be sure.
 */
const placeInGaps = (
  html: string,
  blocks: readonly { key: string; html: string }[],
  lists: readonly Node[][],
  regions: Map<string, BlockRegion>,
): BlockRegions['gaps'] => {
  const gaps: BlockRegions['gaps'] = []
  const inRegion = (span: Span): boolean =>
    [...regions.values()].some(({ outer }) => span.from < outer.to && outer.from < span.to)
  for (let i = 0; i < blocks.length; i++) {
    if (regions.has(blocks[i]?.key ?? '')) continue
    let end = i
    while (end < blocks.length && !regions.has(blocks[end]?.key ?? '')) end++
    const before = regions.get(blocks[i - 1]?.key ?? '')?.outer.to ?? 0
    const after = regions.get(blocks[end]?.key ?? '')?.outer.from ?? html.length
    // The outermost list whose free nodes lie in the gap.
    const free = lists
      .map((list) =>
        list.filter((node) => {
          const span = spanOf(node, node)
          return span !== null && span.from >= before && span.to <= after && !inRegion(span)
        }),
      )
      .find((list) => list.length > 0)
    const first = free?.[0]
    const last = free?.at(-1)
    const outer = first && last ? spanOf(first, last) : null
    const missing = blocks.slice(i, end)
    const [only] = missing
    if (free && outer && only && missing.length === 1) {
      const altered = alteredAmong(free, only.html)
      regions.set(only.key, {
        outer: altered ?? outer,
        inner: altered ?? outer,
        marked: false,
        sure: altered !== null,
        asLookedFor: () => false,
      })
    } else if (outer) gaps.push({ keys: missing.map((block) => block.key), span: outer })
    i = end
  }
  return gaps
}

const dropped = /^(?:id|class|dir|data-.*|on.*)$/

/** HTML in a form in which what platforms rewrite is alike: entities, space, ids, classes, markers and quotation marks. */
export const normalHtml = (html: string): string => formOf(html, false)

/**
 * Whether a piece of a page is what was sent: as a platform writes it, or without any look, where it has none: a platform that
 * drops styles, or a page from before there was a house style. Where it has a look, somebody may have given it.
 */
export const standsAsSent = (there: string, sent: string): boolean =>
  normalHtml(there) === normalHtml(sent) ||
  (!/\sstyle\s*=/i.test(there) && sameButForLook(there, sent))

/** Whether two pieces of HTML say the same in the same elements, whatever they look like. */
export const sameButForLook = (one: string, other: string): boolean =>
  one === other || formOf(one, true) === formOf(other, true)

/** @param bare without styles, and without the boxes that only carry them */
const formOf = (html: string, bare: boolean): string => {
  let written = ''
  const write = (node: Node) => {
    if (node.nodeName === '#text')
      written += plainText((node as DefaultTreeAdapterTypes.TextNode).value)
    if (!isElement(node)) return
    if (bare && (node.tagName === 'div' || node.tagName === 'span'))
      return node.childNodes.forEach(write)
    const attributes = node.attrs
      .filter((attr) => !dropped.test(attr.name) && !(bare && attr.name === 'style'))
      .map((attr) => `${attr.name}=${JSON.stringify(attr.value)}`)
      .sort()
    written += `<${[node.tagName, ...attributes].join(' ')}>`
    node.childNodes.forEach(write)
    written += '</>'
  }
  parseFragment(html).childNodes.forEach(write)
  return written
}
