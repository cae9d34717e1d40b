import { datesMentioned, type DateMention } from '../calendar/index.ts'
import { whyNotRead } from './boundedPage.ts'
import { formulaText } from './formula.ts'
import { lookOf, type InlineLook } from './inlineColours.ts'
import type { PageElement, PageNode, PageText } from './pageNode.ts'
import { parsePage } from './parsePage.ts'

/** A run of text with no block boundary inside. */
export interface Paragraph {
  /** White space collapsed, quotation marks straightened. */
  text: string
  tag: string
  /** Key of the block it stands in, where the platform kept the marker. */
  block: string | null
  /** Language tag declared around it, or null. */
  language: string | null
}

/** Where something stands: in which marked block, and before which paragraph. */
interface TextPlace {
  block: string | null
  paragraph: number
}

export interface PageLink extends TextPlace {
  href: string
  /** What it is called: its words, the alternative text of its images, or its label. */
  text: string
}

export interface PageImage extends TextPlace {
  source: string
  /** null: no alternative text at all; empty: marked as decorative. */
  alternativeText: string | null
  /** Whether something else names it: it is marked as decoration, hidden from readers, or labelled. */
  named: boolean
}

export interface PageHeading extends TextPlace {
  level: number
  text: string
  /** Whether it has words or a named image. */
  named: boolean
}

export interface PageTable extends TextPlace {
  headers: number
  cells: number
  rows: number
  /** Whether it is marked as layout only. */
  layout: boolean
}

/** A film, a recording, or a page shown inside this one. */
export interface PageMedia extends TextPlace {
  kind: 'frame' | 'video' | 'audio'
  source: string
  title: string | null
  captions: boolean
}

/** A formula (MathML). Its signs are words of its paragraph as well. */
export interface PageFormula extends TextPlace {
  text: string
  /** How it is read aloud, where that is said; null: it is not. */
  alternativeText: string | null
}

/** Text whose colour or ground is written in the page itself. */
export interface ColouredText extends TextPlace {
  text: string
  look: InlineLook
}

/** What a page holds, told without knowing which course or template it belongs to, so that it can be kept by content. */
export interface PageFacts {
  paragraphs: Paragraph[]
  headings: PageHeading[]
  links: PageLink[]
  images: PageImage[]
  tables: PageTable[]
  media: PageMedia[]
  lists: TextPlace[]
  formulas: PageFormula[]
  coloured: ColouredText[]
  /** Dates written in the page, with the paragraph each stands in. */
  dates: { mention: DateMention; paragraph: number }[]
  /** Block keys whose markers stand in the page, in order. */
  markers: string[]
  /** Part instance that the markers name, or null. */
  markedPart: string | null
  /** Why it could not be read, or null. */
  notRead: string | null
  /** What was told from the page alone, by what told it; one and the same for all pages that differ only in their own course's addresses. */
  shared: Map<unknown, unknown>
}

/** Raised whenever the facts of the same page would come out differently, so that kept facts are worked out again. */
export const analyserVersion = 5

export const blockMarker = 'data-wicker-block'
export const partMarker = 'data-wicker-part'

const breaksText = new Set(
  'address article aside blockquote br body caption dd details div dl dt fieldset figcaption figure footer form h1 h2 h3 h4 h5 h6 header hr li main nav ol p pre section summary table tbody td tfoot th thead tr ul'.split(
    ' ',
  ),
)
const neverText = new Set(['script', 'style', 'template', 'noscript'])

/** Text with white space collapsed and typographic quotation marks straightened, for comparing. */
export const plainText = (text: string): string => {
  const collapsed = (uneven.test(text) ? text.replace(/\s+/g, ' ') : text).trim()
  return /[‘’“”]/.test(collapsed)
    ? collapsed.replace(/[‘’]/g, "'").replace(/[“”]/g, '"')
    : collapsed
}
const uneven = /\s\s|[^\S ]/

const attribute = (element: PageElement, name: string): string | null => {
  for (const attr of element.attrs) if (attr.name === name) return attr.value
  return null
}
const labelOf = (element: PageElement): string =>
  plainText(attribute(element, 'aria-label') ?? attribute(element, 'title') ?? '')

/** What is inherited on the way down. */
interface Around {
  block: string | null
  language: string | null
  look: InlineLook | null
  table: PageTable | null
}

const noFacts = (notRead: string | null): PageFacts => ({
  paragraphs: [],
  headings: [],
  links: [],
  images: [],
  tables: [],
  media: [],
  lists: [],
  formulas: [],
  coloured: [],
  dates: [],
  markers: [],
  markedPart: null,
  notRead,
  shared: new Map(),
})

/** Reads a page's HTML. Nothing in it is run or fetched. The whole is parsed once. */
export const analysePage = (html: string): PageFacts => {
  const facts = noFacts(whyNotRead(html))
  if (facts.notRead !== null) return facts
  let buffer = ''
  let bufferTag = 'p'
  const standing = (block: string | null): TextPlace => ({
    block,
    paragraph: facts.paragraphs.length,
  })
  const flush = (around: Around) => {
    if (buffer === '') return
    const text = plainText(buffer)
    buffer = ''
    if (text === '') return
    for (const mention of datesMentioned(text))
      facts.dates.push({ mention, paragraph: facts.paragraphs.length })
    facts.paragraphs.push({ text, tag: bufferTag, block: around.block, language: around.language })
  }
  /** What the element's own attributes change for all that stands in it. */
  const within = (node: PageElement, around: Around): Around => {
    let inside = around
    for (const { name, value } of node.attrs) {
      if (name === blockMarker) {
        inside = { ...inside, block: value }
        facts.markers.push(value)
      } else if (name === partMarker) facts.markedPart ??= value
      else if (name === 'lang' && value !== '') inside = { ...inside, language: value }
      else if (name === 'style') {
        const look = lookOf(value, inside.look)
        if (look !== inside.look) inside = { ...inside, look }
      } else if (name === 'color' && node.tagName === 'font')
        inside = { ...inside, look: lookOf(`color:${value}`, inside.look) }
      else if (name === 'bgcolor')
        inside = { ...inside, look: lookOf(`background-color:${value}`, inside.look) }
    }
    return inside
  }
  const notice = (node: PageElement, inside: Around): Around => {
    switch (node.tagName) {
      case 'img':
        facts.images.push({
          source: attribute(node, 'src') ?? '',
          alternativeText: attribute(node, 'alt'),
          named:
            labelOf(node) !== '' ||
            /^(?:none|presentation)$/.test(attribute(node, 'role') ?? '') ||
            attribute(node, 'aria-hidden') === 'true',
          ...standing(inside.block),
        })
        return inside
      case 'table': {
        const table = {
          headers: 0,
          cells: 0,
          rows: 0,
          layout: /^(?:none|presentation)$/.test(attribute(node, 'role') ?? ''),
          ...standing(inside.block),
        }
        facts.tables.push(table)
        return { ...inside, table }
      }
      case 'tr':
        if (inside.table) inside.table.rows += 1
        return inside
      case 'th':
        if (inside.table) inside.table.headers += 1
        return inside
      case 'td':
        if (inside.table) {
          inside.table.cells += 1
          if (/^(?:row|column)header$/.test(attribute(node, 'role') ?? ''))
            inside.table.headers += 1
        }
        return inside
      case 'iframe':
      case 'embed':
      case 'object':
        facts.media.push({
          kind: 'frame',
          source: attribute(node, 'src') ?? attribute(node, 'data') ?? '',
          title: attribute(node, 'title') ?? attribute(node, 'aria-label'),
          captions: false,
          ...standing(inside.block),
        })
        return inside
      case 'video':
      case 'audio': {
        const held = node.childNodes.filter((node): node is PageElement => 'tagName' in node)
        const source =
          attribute(node, 'src') ??
          held
            .map((element) => (element.tagName === 'source' ? attribute(element, 'src') : null))
            .find((source) => source !== null) ??
          ''
        facts.media.push({
          kind: node.tagName,
          source,
          title: attribute(node, 'title') ?? attribute(node, 'aria-label'),
          captions: held.some(
            (element) =>
              element.tagName === 'track' &&
              /^(?:captions|subtitles)$/.test(attribute(element, 'kind') ?? 'subtitles'),
          ),
          ...standing(inside.block),
        })
        return inside
      }
      case 'ul':
      case 'ol':
        facts.lists.push(standing(inside.block))
        return inside
      case 'b':
      case 'strong':
        return inside.look ? { ...inside, look: { ...inside.look, bold: true } } : inside
    }
    return inside
  }
  /** @returns whether a named image stands in it */
  const walk = (nodes: readonly PageNode[], around: Around): boolean => {
    let shown = false
    for (const node of nodes) {
      if (node.nodeName === '#text') {
        const { value } = node as PageText
        buffer += value
        if (
          around.look &&
          (around.look.colour !== null || around.look.background !== null) &&
          value.trim() !== ''
        )
          facts.coloured.push({
            text: plainText(value),
            look: around.look,
            ...standing(around.block),
          })
        continue
      }
      if (!('tagName' in node) || neverText.has(node.tagName)) continue
      const tag = node.tagName
      const inside = notice(node, node.attrs.length > 0 ? within(node, around) : around)
      const breaks = breaksText.has(tag)
      if (breaks) {
        flush(around)
        bufferTag = tag
      }
      if (tag === 'img' && (facts.images.at(-1)?.alternativeText ?? '') !== '') shown = true
      if (tag === 'iframe') continue
      if (tag === 'math') {
        const text = formulaText(node)
        const words = plainText(attribute(node, 'alttext') ?? '') || labelOf(node)
        facts.formulas.push({
          text,
          alternativeText: words === '' ? null : words,
          ...standing(inside.block),
        })
        buffer += ` ${text} `
        continue
      }
      const linkStart = tag === 'a' ? buffer.length : -1
      const firstParagraph = facts.paragraphs.length
      const firstImage = facts.images.length
      const shows = walk(node.childNodes, inside)
      shown ||= shows
      if (linkStart >= 0) {
        const href = attribute(node, 'href')
        const alternative = () =>
          facts.images
            .slice(firstImage)
            .map((image) => image.alternativeText ?? '')
            .join(' ')
        if (href !== null)
          facts.links.push({
            href,
            text:
              plainText(buffer.slice(linkStart)) ||
              plainText(
                facts.paragraphs
                  .slice(firstParagraph)
                  .map((paragraph) => paragraph.text)
                  .join(' '),
              ) ||
              plainText(alternative()) ||
              labelOf(node),
            ...standing(inside.block),
          })
      }
      if (breaks) {
        flush(inside)
        bufferTag = 'p'
        if (tag.length === 2 && tag >= 'h1' && tag <= 'h6') {
          const text = facts.paragraphs
            .slice(firstParagraph)
            .map((paragraph) => paragraph.text)
            .join(' ')
          facts.headings.push({
            level: Number(tag[1]),
            text,
            named: text !== '' || shows || labelOf(node) !== '',
            block: inside.block,
            paragraph: firstParagraph,
          })
        }
      }
    }
    return shown
  }
  const outside: Around = { block: null, language: null, look: null, table: null }
  walk(parsePage(html), outside)
  flush(outside)
  return facts
}
