import { parseFragment, serialize, type DefaultTreeAdapterTypes } from 'parse5'
import { escapeHtml } from '../template/index.ts'
import { plainText, sameText, type Span } from '../page/index.ts'

type Node = DefaultTreeAdapterTypes.ChildNode
type Element = DefaultTreeAdapterTypes.Element

/** What is written in place of a piece that asks. */
export interface Written {
  /** What the piece says now, as plain text; empty: nothing stands, and the answer comes to the end of its block. */
  says: string
  /** Which of those that say the same, from 0. */
  nth: number
  /** HTML; empty: the piece goes. */
  html: string
  /** Where its block stands in the page. */
  within: Span
  /** Whether it is asked within sentences. */
  inSentences: boolean
}

const isElement = (node: Node): node is Element => 'tagName' in node
const blockLevel = new Set(
  'blockquote caption dd div dt figcaption h1 h2 h3 h4 h5 h6 li p section summary td th'.split(' '),
)
const isBlock = (node: Node): node is Element => isElement(node) && blockLevel.has(node.tagName)
const lists = new Set(['ul', 'ol'])
/** What stands beside paragraphs, not within them. */
const besideParagraphs = new Set([...blockLevel, ...lists, 'table', 'dl', 'figure', 'pre', 'hr'])

const textOf = (node: Node): string =>
  node.nodeName === '#text'
    ? (node as DefaultTreeAdapterTypes.TextNode).value
    : isElement(node)
      ? node.childNodes.map(textOf).join('')
      : ''

/** Elements that say just this, the innermost ones, in the order of the page. */
const saying = (nodes: readonly Node[], says: string, within: Span): Element[] =>
  nodes.flatMap((node): Element[] => {
    if (!isElement(node)) return []
    const inner = saying(node.childNodes, says, within)
    if (inner.length > 0 || !isBlock(node)) return inner
    const at = node.sourceCodeLocation
    const isWithin = at && at.startOffset >= within.from && at.endOffset <= within.to
    return isWithin && sameText(plainText(textOf(node)), says) ? [node] : []
  })

/** A stretch of the page and what is written in its place. */
interface Splice extends Span {
  html: string
}

/** An answer as it fits an element: its words where it is one paragraph, else as it is in the place of the element. */
const spliceOf = (element: Element, html: string): Splice | null => {
  const at = element.sourceCodeLocation
  if (!at?.startTag || !at.endTag) return null
  const outer = { from: at.startOffset, to: at.endOffset }
  const inner = { from: at.startTag.endOffset, to: at.endTag.startOffset }
  if (html.trim() === '') return { ...outer, html: '' }
  const nodes = parseFragment(html).childNodes.filter(
    (node) => textOf(node).trim() !== '' || isElement(node),
  )
  const [only] = nodes
  const isOne = nodes.length === 1 && only !== undefined && isElement(only)
  if (isOne && only.tagName === 'p') return { ...inner, html: serialize(only) }
  if (nodes.every((node) => !isElement(node) || !besideParagraphs.has(node.tagName)))
    return { ...inner, html }
  if (element.tagName === 'li' && isOne && lists.has(only.tagName))
    return { ...outer, html: serialize(only) }
  return /^(?:p|h[1-6]|caption|summary|figcaption|dt)$/.test(element.tagName)
    ? { ...outer, html }
    : { ...inner, html }
}

/** Finds words in the source of a page, however spaces and signs are written there. */
const inSource = (says: string): RegExp =>
  new RegExp(
    [...says]
      .map((sign) =>
        /\s/.test(sign)
          ? '(?:\\s|&nbsp;|&#160;|&#xa0;)+'
          : /[A-Za-z0-9]/.test(sign)
            ? sign
            : `(?:${{ "'": "['‘’]", '"': '["“”]' }[sign] ?? sign.replace(/[.*+?^${}()|[\]\\/-]/g, '\\$&')}|&#?\\w{1,12};)`,
      )
      .join(''),
    'gu',
  )

/** Within sentences: the words themselves, with those of an answer in their place. */
const spliceWithin = (page: string, { says, nth, html, within }: Written): Splice | null => {
  const [found] = [...page.slice(within.from, within.to).matchAll(inSource(says))].slice(nth)
  if (!found) return null
  const from = within.from + found.index
  const to = from + found[0].length
  const [only, ...more] = parseFragment(html).childNodes
  const isParagraph =
    only !== undefined && more.length === 0 && isElement(only) && only.tagName === 'p'
  const words = isParagraph ? serialize(only) : html
  const nodes = parseFragment(words).childNodes
  if (nodes.some((node) => isElement(node) && besideParagraphs.has(node.tagName))) return null
  // What goes takes the space before it along.
  const before = page.slice(within.from, from)
  const spaces = words === '' ? before.length - before.trimEnd().length : 0
  return { from: from - spaces, to, html: words }
}

/**
 * Writes answers in place of pieces that ask, each found by what it says in its block; every other sign of the page stays as it is.
 * @param page HTML as it stands
 * @returns null where one of them is not there, or cannot be told from what stands around it
 */
export const writePieces = (page: string, pieces: readonly Written[]): string | null => {
  const nodes = parseFragment(page, { sourceCodeLocationInfo: true }).childNodes
  const splices: Splice[] = []
  for (const piece of pieces) {
    const { says, nth, html, within, inSentences } = piece
    if (says === '') {
      splices.push({ from: within.to, to: within.to, html })
      continue
    }
    const element = inSentences ? undefined : saying(nodes, says, within)[nth]
    const splice = element ? spliceOf(element, html) : spliceWithin(page, piece)
    if (!splice) return null
    splices.push(splice)
  }
  splices.sort((one, other) => other.from - one.from)
  let written = page
  let before = Infinity
  for (const { from, to, html } of splices) {
    if (to > before) return null
    written = written.slice(0, from) + html + written.slice(to)
    before = from
  }
  return written
}

/** Lines as HTML: paragraphs, or the members of a list. */
export const linesAsHtml = (lines: readonly string[], as: 'paragraphs' | 'list'): string => {
  const said = lines.map((line) => line.trim()).filter((line) => line !== '')
  if (said.length === 0) return ''
  return as === 'list'
    ? `<ul>${said.map((line) => `<li>${escapeHtml(line)}</li>`).join('')}</ul>`
    : said.map((line) => `<p>${escapeHtml(line)}</p>`).join('')
}
