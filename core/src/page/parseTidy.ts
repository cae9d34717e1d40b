import { decodeHTML, decodeHTMLAttribute } from 'entities/decode'
import type { PageElement, PageNode } from './pageNode.ts'

const setOf = (words: string): ReadonlySet<string> => new Set(words.split(' '))
const empty = setOf('br hr img source track wbr')
/** What ends a paragraph that it is written in, so that a tidy page has it outside of paragraphs. */
const outsideParagraphs = setOf(
  'address article aside blockquote details div dl dd dt figcaption figure footer h1 h2 h3 h4 h5 h6 header hr li main nav ol p section summary table ul',
)
const headings = setOf('h1 h2 h3 h4 h5 h6')
const inline = setOf(
  'a abbr audio b bdi bdo big cite code data del dfn em font i ins kbd label mark q s samp small span strike strong sub sup time tt u var video',
)
/** What may only stand in some elements, and in which. */
const standsIn = new Map([
  ['li', setOf('ul ol')],
  ['dd', setOf('dl')],
  ['dt', setOf('dl')],
  ['caption', setOf('table')],
  ['thead', setOf('table')],
  ['tbody', setOf('table')],
  ['tfoot', setOf('table')],
  ['tr', setOf('thead tbody tfoot')],
  ['td', setOf('tr')],
  ['th', setOf('tr')],
])
/** What holds parts of a table only, and spaces between them. */
const holdsTableParts = setOf('table thead tbody tfoot tr')
const tableParts = setOf('caption thead tbody tfoot tr td th')

const tagName = /<([a-z][a-z0-9]*)/y
const attribute = /[ \t\n\f]+([a-z][a-z0-9:_-]*)(?:="([^"]*)")?/y
const tagEnd = /[ \t\n\f]*(\/?)>/y
const onlySpaces = /^[ \t\n\f]*$/
/** What the standard leaves out or replaces wherever it stands. */
const replaced = /[\0\r]/

type Attributes = PageElement['attrs']
const none: Attributes = []
/** An element with more of them is for the whole parser: each is compared with those before it. */
const mostAttributes = 40

/** What stands in a start tag after its name. */
interface RestOfTag {
  attrs: Attributes
  endsItself: boolean
  /** In characters, with its `>`. */
  length: number
}
const plainTag: RestOfTag = { attrs: none, endsItself: false, length: 1 }

/** Reads attributes in double quotes, or without a value; null for anything else, and for one that is there twice. */
const restOfTag = (html: string, from: number): RestOfTag | null => {
  const attrs: { name: string; value: string }[] = []
  attribute.lastIndex = tagEnd.lastIndex = from
  for (let found = attribute.exec(html); found; found = attribute.exec(html)) {
    const [, name = '', value = ''] = found
    if (attrs.length === mostAttributes || attrs.some((attr) => attr.name === name)) return null
    attrs.push({ name, value: value.includes('&') ? decodeHTMLAttribute(value) : value })
    tagEnd.lastIndex = attribute.lastIndex
  }
  const end = tagEnd.exec(html)
  return end && { attrs, endsItself: end[1] !== '', length: tagEnd.lastIndex - from }
}

/** An element that is still open, and its nodes so far. */
interface Open {
  name: string
  nodes: PageNode[]
}

/**
 * Reads a page all of whose elements are closed where they should be, in the only order the HTML standard's parsing (WHATWG
 * HTML, 13.2.6) takes without a correction of its own; there, that parsing comes down to a stack.
 * @returns its nodes as that parsing gives them, save comments and the like; null when it needs a whole parser
 */
export const parseTidy = (html: string): readonly PageNode[] | null => {
  if (replaced.test(html)) return null
  const page: Open = { name: '', nodes: [] }
  const open = [page]
  let at = page
  let paragraphs = 0
  let links = 0
  const enter = (name: string, attrs: Attributes): void => {
    const nodes: PageNode[] = []
    at.nodes.push({ nodeName: name, tagName: name, attrs, childNodes: nodes })
    at = { name, nodes }
    open.push(at)
  }
  const leave = (): void => {
    open.pop()
    at = open.at(-1) ?? page
  }
  for (let place = 0; place < html.length;) {
    const next = html.indexOf('<', place)
    const end = next < 0 ? html.length : next
    if (end > place) {
      const written = html.slice(place, end)
      const value = written.includes('&') ? decodeHTML(written) : written
      if (holdsTableParts.has(at.name) && !onlySpaces.test(value)) return null
      at.nodes.push({ nodeName: '#text', value })
      if (next < 0) break
    }
    if (html[end + 1] === '/') {
      const closes = (name: string): boolean =>
        html.startsWith(name, end + 2) && html[end + 2 + name.length] === '>'
      // Written without a body of rows, a table has one all the same.
      if (at.name === 'tbody' && closes('table')) leave()
      if (at === page || !closes(at.name)) return null
      place = end + 3 + at.name.length
      if (at.name === 'p') paragraphs -= 1
      else if (at.name === 'a') links -= 1
      leave()
      continue
    }
    tagName.lastIndex = end
    const name = tagName.exec(html)?.[1]
    if (name === undefined) return null
    place = tagName.lastIndex
    const tag = html[place] === '>' ? plainTag : restOfTag(html, place)
    if (tag === null) return null
    place += tag.length
    if (name === 'tr' && at.name === 'table') enter('tbody', none)
    if (holdsTableParts.has(at.name) && !tableParts.has(name)) return null
    if (standsIn.get(name)?.has(at.name) === false) return null
    if (outsideParagraphs.has(name)) {
      if (paragraphs > 0 || (headings.has(name) && headings.has(at.name))) return null
    } else if (!inline.has(name) && !empty.has(name) && !tableParts.has(name)) {
      // A frame holds text that nobody reads; empty ones are as editors write them.
      if (name !== 'iframe' || !html.startsWith('</iframe>', place)) return null
    }
    if (empty.has(name)) {
      at.nodes.push({ nodeName: name, tagName: name, attrs: tag.attrs, childNodes: [] })
      continue
    }
    if (tag.endsItself) return null
    if (name === 'p') paragraphs += 1
    else if (name === 'a' && ++links > 1) return null
    enter(name, tag.attrs)
  }
  return at === page ? page.nodes : null
}
