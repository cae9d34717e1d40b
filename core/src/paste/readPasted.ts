import { parseFragment, serializeOuter, type DefaultTreeAdapterTypes as Tree } from 'parse5'
import { letIn } from '../allow/index.ts'
import { addressOf, withoutEnd } from '../document/index.ts'
import { escapeHtml } from '../template/index.ts'
import { marked, saysSomething, spaces, tidied } from './inline.ts'
import { listsOfItems } from './listOfItems.ts'
import { leaveOut, wordsOfLeft, type Cell, type Left, type Piece } from './piece.ts'
import { marksIn, styleOf, type Mark } from './style.ts'
import { ordinal, typedLists } from './typedLists.ts'
import { writePieces } from './write.ts'

/** A picture that came with what was pasted. */
export interface PastedPicture {
  /** A `data:` address. */
  source: string
  /** What its writer said it shows; may be empty. */
  alternativeText: string
}
/** What is kept of something pasted, and what was left out of it, in words with how often. */
export interface Pasted {
  /** Where the n-th picture stands, `asset:pasted-n` is its source, counted from 0. */
  html: string
  pictures: PastedPicture[]
  left: string[]
}

const mostPictures = 20
/** As letters of a `data:` address: six megabytes of picture. */
const longestPicture = 8_000_000
const pictureAddress = /^data:image\/(?:png|jpeg|webp|svg\+xml)[;,]/i

type Node = Tree.ChildNode
type Element = Tree.Element
const isElement = (node: Node): node is Element => 'tagName' in node
const attribute = (element: Element, name: string): string =>
  element.attrs.find((one) => one.name === name)?.value ?? ''
const styleText = (element: Element): string => attribute(element, 'style')

const blockTags = new Set(
  'address article aside blockquote body center dd details div dl dt figcaption figure footer form h1 h2 h3 h4 h5 h6 header hr html li main nav ol p pre section summary table ul'.split(
    ' ',
  ),
)
/** They go with what stands in them. */
const silent = new Set(
  'head link meta script style title xml template noscript colgroup col source'.split(' '),
)
/** What a page holds beside words, by what it is called where it is left out. */
const besideWords: Readonly<Record<string, Parameters<typeof leaveOut>[1]>> = {
  img: 'image',
  svg: 'drawing',
  canvas: 'drawing',
  video: 'video',
  audio: 'sound',
  iframe: 'embedded',
  embed: 'embedded',
  object: 'embedded',
  button: 'control',
  input: 'control',
  select: 'control',
  textarea: 'control',
}

/** Whether something below is a block: then what is around it only holds it. Looked up again and again, so told once. */
const holdsBlocks = (element: Element, known: Map<Element, boolean>): boolean => {
  const before = known.get(element)
  if (before !== undefined) return before
  const holds = element.childNodes.some(
    (child) => isElement(child) && (blockTags.has(child.tagName) || holdsBlocks(child, known)),
  )
  known.set(element, holds)
  return holds
}

/** Whether a formula stands somewhere in it. Looked up again and again, so told once. */
const holdsFormula = (node: Tree.ParentNode, known: Map<Tree.ParentNode, boolean>): boolean => {
  const before = known.get(node)
  if (before !== undefined) return before
  const holds = node.childNodes.some(
    (child) => isElement(child) && (child.tagName === 'math' || holdsFormula(child, known)),
  )
  known.set(node, holds)
  return holds
}

/** Deeper than people nest; what stands deeper is read as if it stood there. */
const deepest = 60

/** Word processors draw lists as paragraphs: how deep such a one stands, from 1; null: it is none. */
const drawnDepth = (style: string): number | null => {
  const drawn = styleOf(style, 'mso-list')
  return /\bl\d+\b/.test(drawn) ? Number(/level(\d+)/.exec(drawn)?.[1] ?? 1) : null
}
class Reading {
  readonly left: Left = new Map()
  readonly pictures: PastedPicture[] = []
  private readonly blocks = new Map<Element, boolean>()
  private readonly formulas = new Map<Tree.ParentNode, boolean>()

  /** Text between blocks, as one line of HTML. */
  private inline(nodes: readonly Node[], marks: ReadonlySet<Mark>, isLink: boolean): string {
    return nodes.map((node) => this.inlineOf(node, marks, isLink)).join('')
  }

  private inlineOf(node: Node, marks: ReadonlySet<Mark>, isLink: boolean): string {
    if (node.nodeName === '#text')
      return marked((node as Tree.TextNode).value.replace(spaces, ' '), marks)
    if (!isElement(node) || silent.has(node.tagName) || this.isHidden(node)) return ''
    const { tagName } = node
    if (tagName === 'br') return '<br>'
    const source = tagName === 'img' ? attribute(node, 'src') : ''
    if (
      pictureAddress.test(source) &&
      source.length <= longestPicture &&
      this.pictures.length < mostPictures
    ) {
      const alternativeText = attribute(node, 'alt').replace(spaces, ' ').trim().slice(0, 500)
      this.pictures.push({ source, alternativeText })
      return `<img src="asset:pasted-${this.pictures.length - 1}">`
    }
    if (tagName === 'math') return letIn(serializeOuter(node)).html
    const beside = besideWords[tagName]
    if (beside !== undefined) {
      leaveOut(this.left, beside)
      return ''
    }
    if (tagName === 'del') {
      leaveOut(this.left, 'deleted')
      return ''
    }
    const within = marksIn(tagName, styleText(node), marks)
    const text = this.inline(node.childNodes, within, isLink || tagName === 'a')
    if (tagName !== 'a' || isLink || text.trim() === '') return text
    return this.link(attribute(node, 'href'), text)
  }

  private link(href: string, text: string): string {
    if (href === '') return text
    const address = addressOf(href)
    if (
      address === null ||
      href.startsWith('#') ||
      !/^(?:https?:|mailto:|tel:|part:)/i.test(address)
    ) {
      leaveOut(this.left, 'link')
      return text
    }
    return `<a href="${escapeHtml(address)}">${text}</a>`
  }

  /** What nobody sees where it is copied: markers of lists, comments, what is hidden. */
  private isHidden(element: Element): boolean {
    const { parentNode } = element
    // Some pages draw a formula once more beside it, for those who see.
    if (
      attribute(element, 'aria-hidden') === 'true' &&
      parentNode !== null &&
      holdsFormula(parentNode, this.formulas)
    )
      return true
    const style = styleText(element)
    if (/ignore/.test(styleOf(style, 'mso-list'))) return true
    if (
      /comment/.test(styleOf(style, 'mso-element')) ||
      /comment/i.test(attribute(element, 'class'))
    ) {
      leaveOut(this.left, 'comment')
      return true
    }
    return styleOf(style, 'display') === 'none' || styleOf(style, 'mso-hide') === 'all'
  }

  pieces(nodes: readonly Node[], marks: ReadonlySet<Mark> = new Set(), depth = 0): Piece[] {
    const made: Piece[] = []
    let line: Node[] = []
    const flush = () => {
      made.push(...this.lines(line, marks))
      line = []
    }
    for (const node of nodes) {
      const isBlock =
        isElement(node) &&
        depth < deepest &&
        (blockTags.has(node.tagName) || holdsBlocks(node, this.blocks))
      if (!isBlock) line.push(node)
      else {
        flush()
        if (!this.isHidden(node)) made.push(...this.block(node, marks, depth + 1))
      }
    }
    flush()
    return listsOfItems(made)
  }

  /** A line of text, where it says something. Two line ends and more part paragraphs. */
  private lines(nodes: readonly Node[], marks: ReadonlySet<Mark>): Piece[] {
    return this.inline(nodes, marks, false)
      .split(/<br>(?:\s*<br>)+/)
      .map(tidied)
      .filter((inline) => saysSomething(inline))
      .map((inline) => ({ kind: 'paragraph', inline }))
  }

  private block(element: Element, around: ReadonlySet<Mark>, depth: number): Piece[] {
    const { tagName, childNodes } = element
    const style = styleText(element)
    const heading = headingLevel(element)
    if (heading !== null) {
      // A heading stands out by itself.
      const inline = tidied(this.inline(childNodes, new Set(), false)).replace(
        /<\/?strong>|<br>/g,
        (tag) => (tag === '<br>' ? ' ' : ''),
      )
      if (!saysSomething(inline)) return []
      return /^(?:<[^>]*>|\s)*$/.test(inline)
        ? [{ kind: 'paragraph', inline }]
        : [{ kind: 'heading', level: heading, inline }]
    }
    const marks = marksIn(tagName, style, around)
    const drawn = drawnDepth(style)
    if (drawn !== null && !holdsBlocks(element, this.blocks)) {
      const inline = tidied(this.inline(childNodes, marks, false))
      const ordered = ordinal.test(markerOf(element))
      return saysSomething(inline) ? [{ kind: 'item', ordered, depth: drawn, inline }] : []
    }
    switch (tagName) {
      case 'ul':
      case 'ol':
        return this.list(element, marks, depth)
      case 'table':
        return this.table(element, depth)
      case 'hr':
        return [{ kind: 'rule' }]
      case 'blockquote': {
        const inner = this.pieces(childNodes, marks, depth)
        return inner.length === 0 ? [] : [{ kind: 'quote', inner }]
      }
      case 'pre':
        return this.lines(linesOfText(textOf(element)), marks)
      case 'dt':
        return this.pieces(childNodes, new Set([...marks, 'strong']), depth)
      default:
        return this.pieces(childNodes, marks, depth)
    }
  }

  private list(element: Element, marks: ReadonlySet<Mark>, depth: number): Piece[] {
    const items: Piece[][] = []
    for (const child of element.childNodes) {
      if (!isElement(child)) continue
      // Some put a list beside the item that it belongs to.
      const isLoose = child.tagName === 'ul' || child.tagName === 'ol'
      const inner = this.pieces(isLoose ? [child] : child.childNodes, marks, depth)
      const before = items.at(-1)
      if (isLoose && before) before.push(...inner)
      else if (inner.length > 0) items.push(inner)
    }
    return items.length === 0 ? [] : [{ kind: 'list', ordered: element.tagName === 'ol', items }]
  }

  private table(element: Element, depth: number): Piece[] {
    const rows: Cell[][] = []
    let caption = ''
    const visit = (nodes: readonly Node[], isHead: boolean): void => {
      for (const node of nodes) {
        if (!isElement(node)) continue
        if (node.tagName === 'caption')
          caption = tidied(this.inline(node.childNodes, new Set(), false))
        else if (node.tagName === 'tr') {
          const cells = this.row(node, isHead, depth)
          if (cells.some(({ inner }) => inner.length > 0)) rows.push(cells)
        } else if (/^(?:thead|tbody|tfoot)$/.test(node.tagName))
          visit(node.childNodes, node.tagName === 'thead')
      }
    }
    visit(element.childNodes, false)
    // One column and one row hold something; they are no table.
    const [first] = rows
    if (!first) return []
    if (rows.every((cells) => cells.length === 1))
      return rows.flatMap(([cell]) => cell?.inner ?? [])
    // A first row that stands out is that of the headings.
    if (!rows.some((cells) => cells.some(({ isHead }) => isHead)) && first.every(standsOut))
      for (const cell of first) cell.isHead = true
    for (const cells of rows)
      for (const cell of cells) if (cell.isHead) cell.inner = cell.inner.map(plainly)
    return [{ kind: 'table', caption, rows }]
  }

  private row(element: Element, isHead: boolean, depth: number): Cell[] {
    return element.childNodes.flatMap((node): Cell[] => {
      if (!isElement(node) || (node.tagName !== 'td' && node.tagName !== 'th')) return []
      const span = (name: string) => Math.min(50, Math.max(1, Number(attribute(node, name)) || 1))
      return [
        {
          isHead: isHead || node.tagName === 'th',
          columns: span('colspan'),
          rows: span('rowspan'),
          inner: this.withoutTables(this.pieces(node.childNodes, new Set(), depth)),
        },
      ]
    })
  }

  /** A table inside a cell is read as its lines. */
  private withoutTables(pieces: readonly Piece[]): Piece[] {
    return pieces.flatMap((piece) => {
      if (piece.kind === 'heading')
        return [{ kind: 'paragraph', inline: piece.inline } satisfies Piece]
      if (piece.kind !== 'table') return [piece]
      leaveOut(this.left, 'table')
      return piece.rows.flatMap((cells) => cells.flatMap(({ inner }) => inner))
    })
  }
}

const textOf = (node: Node): string =>
  node.nodeName === '#text'
    ? (node as Tree.TextNode).value
    : isElement(node)
      ? node.childNodes.map(textOf).join('')
      : ''
/** What was drawn before an item: the part that is not to be read as its text, or else the text itself. */
const markerOf = (element: Element): string => {
  const find = (node: Node): string | null => {
    if (!isElement(node)) return null
    if (/ignore/.test(styleOf(styleText(node), 'mso-list'))) return `${textOf(node)} `
    for (const child of node.childNodes) {
      const found = find(child)
      if (found !== null) return found
    }
    return null
  }
  return find(element) ?? ''
}

const headingLevel = (element: Element): number | null => {
  const tag = /^h([1-6])$/.exec(element.tagName)
  if (tag) return Number(tag[1])
  if (attribute(element, 'role') === 'heading') return Number(attribute(element, 'aria-level')) || 2
  const outline = styleOf(styleText(element), 'mso-outline-level')
  return element.tagName === 'p' && /^[1-6]$/.test(outline) ? Number(outline) : null
}

const standsOut = ({ inner }: Cell): boolean =>
  inner.length === 1 &&
  inner.every((piece) => piece.kind === 'paragraph' && /^<strong>.*<\/strong>$/.test(piece.inline))
const plainly = (piece: Piece): Piece =>
  'inline' in piece ? { ...piece, inline: piece.inline.replace(/<\/?strong>/g, '') } : piece

/** Lines of text as nodes, a line end between them. */
const linesOfText = (text: string): Node[] => parseFragment(htmlOfLines(text)).childNodes
const htmlOfLines = (text: string): string =>
  text
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .map((line) => escapeHtml(line))
    .join('<br>')

/** Levels of headings that a block holds; what was one level is one level still. */
const fitted = (pieces: readonly Piece[]): Piece[] => {
  const levels = [
    ...new Set(pieces.flatMap((piece) => (piece.kind === 'heading' ? [piece.level] : []))),
  ].sort((a, b) => a - b)
  return pieces.map((piece) =>
    piece.kind === 'heading' ? { ...piece, level: piece.level === levels[0] ? 3 : 4 } : piece,
  )
}

const finished = (reading: Reading, pieces: readonly Piece[], more: readonly string[]): Pasted => {
  const { html, refused } = letIn(writePieces(typedLists(fitted(pieces))))
  return {
    html,
    pictures: reading.pictures,
    left: [...more, ...wordsOfLeft(reading.left), ...refused],
  }
}

const fragmentStart = '<!--StartFragment-->'
const fragmentEnd = '<!--EndFragment-->'
/** Whether something is only how it looks. */
const looks = /\sstyle="|\sclass="|<font|<style|\b(?:bgcolor|color|face)="/i

/**
 * What is kept of HTML that was copied somewhere: headings (of two levels, as a block holds them), lists, also those that word
 * processors draw as paragraphs, tables, links, emphasis, lines. How it looked goes. Nothing of it runs.
 */
export const readPasted = (copied: string): Pasted => {
  const from = copied.indexOf(fragmentStart)
  const until = copied.lastIndexOf(fragmentEnd)
  const html = from >= 0 && until > from ? copied.slice(from + fragmentStart.length, until) : copied
  const reading = new Reading()
  const pieces = reading.pieces(parseFragment(html).childNodes)
  return finished(reading, pieces, looks.test(html) ? ['fonts, colours and spacing'] : [])
}

/** The same of plain text: blank lines part paragraphs, lines stay lines, columns parted by tabs are a table. */
export const readPastedText = (text: string): Pasted => {
  const reading = new Reading()
  const lines = withoutEnd(text.replace(/\r\n?/g, '\n'), '\n').split('\n')
  const cells = lines.map((line) => line.split('\t'))
  const [first] = cells
  if (
    first &&
    first.length > 1 &&
    lines.length > 1 &&
    cells.every((row) => row.length === first.length)
  ) {
    const rows = cells.map((row) =>
      row.map((cell): Cell => ({
        isHead: false,
        columns: 1,
        rows: 1,
        inner: cell.trim() === '' ? [] : [{ kind: 'paragraph', inline: escapeHtml(cell.trim()) }],
      })),
    )
    return finished(reading, [{ kind: 'table', caption: '', rows }], [])
  }
  return finished(reading, reading.pieces(linesOfText(text)), [])
}
