import { parseFragment, serialize, serializeOuter, type DefaultTreeAdapterTypes } from 'parse5'
import { plainText } from '../page/index.ts'

type Node = DefaultTreeAdapterTypes.ChildNode
type Element = DefaultTreeAdapterTypes.Element

/** A piece of a page that stands by itself: a heading, a paragraph, a list, a table, an image. */
export interface Chunk {
  html: string
  text: string
  tag: string
  /** Level of a heading; null otherwise. */
  level: number | null
  /** Addresses of its links. */
  links: string[]
  hasImage: boolean
}

const wrappers = new Set(['div', 'section', 'article', 'main', 'aside', 'header', 'footer', 'body'])
const dropped = new Set([
  'script',
  'style',
  'template',
  'noscript',
  'iframe',
  'object',
  'embed',
  'form',
])
const keptAttributes = new Set(['href', 'src', 'alt', 'scope', 'lang', 'colspan', 'rowspan'])
const deepest = 60

const isElement = (node: Node): node is Element => 'tagName' in node
/** Leaves what could run, and everything of the platform's own, behind. */
const clean = (parent: DefaultTreeAdapterTypes.ParentNode, depth = 0): void => {
  parent.childNodes =
    depth > deepest
      ? []
      : parent.childNodes.filter(
          (node) => node.nodeName !== '#comment' && !(isElement(node) && dropped.has(node.tagName)),
        )
  for (const node of parent.childNodes) {
    if (!isElement(node)) continue
    node.attrs = node.attrs.filter(
      (attr) => keptAttributes.has(attr.name) && !/^\s*javascript:/i.test(attr.value),
    )
    clean(node, depth + 1)
  }
}
const textOf = (node: Node): string =>
  node.nodeName === '#text'
    ? (node as DefaultTreeAdapterTypes.TextNode).value
    : isElement(node)
      ? `${node.childNodes.map(textOf).join('')}${/^(li|tr|p|h[1-6]|br|td|th)$/.test(node.tagName) ? ' ' : ''}`
      : ''
const within = (element: Element): Element[] => [
  element,
  ...element.childNodes.filter(isElement).flatMap(within),
]

/** A page as the pieces it is laid out in, wrappers opened; safe to show, with nothing in it that runs. */
export const chunksOf = (html: string): Chunk[] => {
  const root = parseFragment(html)
  clean(root)
  const visit = (nodes: readonly Node[], depth: number): Chunk[] =>
    nodes.flatMap((node): Chunk[] => {
      if (!isElement(node)) {
        const text = plainText(textOf(node))
        return text === ''
          ? []
          : [
              {
                html: `<p>${serialize({ ...root, childNodes: [node] })}</p>`,
                text,
                tag: 'p',
                level: null,
                links: [],
                hasImage: false,
              },
            ]
      }
      if (wrappers.has(node.tagName) && depth < deepest) return visit(node.childNodes, depth + 1)
      const inside = within(node)
      const text = plainText(textOf(node))
      const hasImage = inside.some(({ tagName }) => tagName === 'img')
      if (text === '' && !hasImage) return []
      return [
        {
          html: serializeOuter(node),
          text,
          tag: node.tagName,
          level: /^h[1-6]$/.test(node.tagName) ? Number(node.tagName[1]) : null,
          links: inside.flatMap(({ attrs }) =>
            attrs
              .filter((attribute) => attribute.name === 'href')
              .map((attribute) => attribute.value),
          ),
          hasImage,
        },
      ]
    })
  return visit(root.childNodes, 0)
}
