import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'
import { datesMentioned, type DateMention } from '../calendar/index.ts'

type Node = DefaultTreeAdapterTypes.ChildNode
type Parent = DefaultTreeAdapterTypes.ParentNode

/** A run of text with no block boundary inside. */
export interface Paragraph {
  /** White space collapsed, quotation marks straightened. */
  text: string
  tag: string
  /** Key of the block it stands in, where the platform kept the marker. */
  block: string | null
}

export interface PageLink {
  href: string
  text: string
  block: string | null
}

export interface PageImage {
  source: string
  /** null: no alternative text at all; empty: marked as decorative. */
  alternativeText: string | null
  block: string | null
}

/** What a page holds, told without knowing which course or template it belongs to, so that it can be kept by content. */
export interface PageFacts {
  paragraphs: Paragraph[]
  headings: { level: number; text: string }[]
  links: PageLink[]
  images: PageImage[]
  /** Dates written in the page, with the paragraph each stands in. */
  dates: { mention: DateMention; paragraph: number }[]
  /** Block keys whose markers stand in the page, in order. */
  markers: string[]
  /** Part instance that the markers name, or null. */
  markedPart: string | null
}

/** Raised whenever the facts of the same page would come out differently, so that kept facts are worked out again. */
export const analyserVersion = 2

export const blockMarker = 'data-wf-block'
export const partMarker = 'data-wf-part'

/** What is nested deeper than this is not written by people, and is not read. */
const deepestRead = 500

const breaksText = new Set(
  'address article aside blockquote br body caption dd details div dl dt fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hr li main nav ol p pre section summary table tbody td tfoot th thead tr ul'.split(' '),
)
const neverText = new Set(['script', 'style', 'template', 'noscript', 'iframe'])

/** Text with white space collapsed and typographic quotation marks straightened, for comparing. */
export const plainText = (text: string): string => {
  const collapsed = text.replace(/\s+/g, ' ').trim()
  return /[‘’“”]/.test(collapsed) ? collapsed.replace(/[‘’]/g, "'").replace(/[“”]/g, '"') : collapsed
}

const attribute = (element: DefaultTreeAdapterTypes.Element, name: string): string | null => {
  for (const one of element.attrs) if (one.name === name) return one.value
  return null
}

/** Reads a page's HTML. Nothing in it is run or fetched. The whole is parsed once (WHATWG HTML, by parse5). */
export const analysePage = (html: string): PageFacts => {
  const facts: PageFacts = { paragraphs: [], headings: [], links: [], images: [], dates: [], markers: [], markedPart: null }
  let buffer = ''
  let bufferTag = 'p'
  const flush = (block: string | null) => {
    if (buffer === '') return
    const text = plainText(buffer)
    buffer = ''
    if (text === '') return
    for (const mention of datesMentioned(text)) facts.dates.push({ mention, paragraph: facts.paragraphs.length })
    facts.paragraphs.push({ text, tag: bufferTag, block })
  }
  const walk = (parent: Parent, block: string | null, depth: number) => {
    if (depth > deepestRead) return

    for (const node of parent.childNodes as Node[]) {
      if (node.nodeName === '#text') {
        buffer += (node as DefaultTreeAdapterTypes.TextNode).value
        continue
      }
      if (!('tagName' in node) || neverText.has(node.tagName)) continue
      const tag = node.tagName
      let inside = block
      for (const one of node.attrs) {
        if (one.name === blockMarker) {
          inside = one.value
          facts.markers.push(one.value)
        } else if (one.name === partMarker) facts.markedPart ??= one.value
      }
      const breaks = breaksText.has(tag)
      if (breaks) {
        flush(block)
        bufferTag = tag
      }
      if (tag === 'img') facts.images.push({ source: attribute(node, 'src') ?? '', alternativeText: attribute(node, 'alt'), block: inside })
      const linkStart = tag === 'a' ? buffer.length : -1
      const firstParagraph = facts.paragraphs.length
      walk(node, inside, depth + 1)
      if (linkStart >= 0) {
        const href = attribute(node, 'href')
        if (href !== null) facts.links.push({ href, text: plainText(buffer.slice(linkStart)), block: inside })
      }
      if (breaks) {
        flush(inside)
        bufferTag = 'p'
        if (/^h[1-6]$/.test(tag))
          facts.headings.push({ level: Number(tag[1]), text: facts.paragraphs.slice(firstParagraph).map((one) => one.text).join(' ') })
      }
    }
  }
  walk(parseFragment(html), null, 0)
  flush(null)
  return facts
}
