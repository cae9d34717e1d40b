import { parseFragment, type DefaultTreeAdapterTypes } from 'parse5'

/** A paragraph of a page, and where its inner HTML stands in the source. */
export interface Paragraph {
  text: string
  from: number
  to: number
}

const own = new Set(['p', 'li', 'h1', 'h2', 'h3', 'h4', 'td', 'th'])

/** The paragraphs, list items, headings and cells of a page, in order, with their source offsets. */
export const paragraphsIn = (html: string): Paragraph[] => {
  const found: Paragraph[] = []
  const textOf = (node: DefaultTreeAdapterTypes.ChildNode): string =>
    node.nodeName === '#text'
      ? (node as DefaultTreeAdapterTypes.TextNode).value
      : 'childNodes' in node
        ? node.childNodes.map(textOf).join('')
        : ''
  const visit = (nodes: readonly DefaultTreeAdapterTypes.ChildNode[]) => {
    for (const node of nodes) {
      if (!('tagName' in node)) continue
      const at = node.sourceCodeLocation
      if (own.has(node.tagName) && at?.startTag && at.endTag)
        found.push({
          text: textOf(node).trim(),
          from: at.startTag.endOffset,
          to: at.endTag.startOffset,
        })
      else visit(node.childNodes)
    }
  }
  visit(parseFragment(html, { sourceCodeLocationInfo: true }).childNodes)
  return found
}

const asHtml = (text: string): string =>
  text.replace(/[&<>]/g, (character) => `&#${character.charCodeAt(0)};`)

/**
 * The page with one paragraph's text replaced, every byte outside it as it was; null when that paragraph no longer says
 * what it said. An index of -1 adds a paragraph at the end; an empty text takes the words away.
 */
export const withParagraph = (
  html: string,
  index: number,
  was: string,
  text: string,
): string | null => {
  if (index === -1) return text.trim() === '' ? html : `${html}<p>${asHtml(text.trim())}</p>`
  const paragraph = paragraphsIn(html)[index]
  if (!paragraph || paragraph.text !== was.trim()) return null
  return html.slice(0, paragraph.from) + asHtml(text.trim()) + html.slice(paragraph.to)
}
