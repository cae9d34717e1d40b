import { parseFragment, serialize, type DefaultTreeAdapterTypes } from 'parse5'

type Node = DefaultTreeAdapterTypes.ChildNode
type Element = DefaultTreeAdapterTypes.Element

const entities: Readonly<Record<string, string>> = {
  '–': '&ndash;',
  '—': '&mdash;',
  '’': '&rsquo;',
  '“': '&ldquo;',
  '”': '&rdquo;',
  '…': '&hellip;',
  é: '&eacute;',
  '·': '&middot;',
}
const refused = new Set(['script', 'style', 'iframe', 'object', 'embed', 'link', 'meta', 'base'])

const isElement = (node: Node): node is Element => 'tagName' in node

/** What the platform drops of the HTML it is given, besides what runs. */
export interface Dropped {
  unknownAttributes: boolean
  styles: boolean
}

/**
 * How the practice platform writes HTML it is given, as real platforms do in their own ways: scripts and event
 * attributes dropped, ids prefixed, some characters as named entities, paragraphs wrapped onto lines of their own, and,
 * where it is told to, attributes it does not know and styles stripped.
 */
export const rewriteHtml = (html: string, dropped: Dropped): string => {
  const fragment = parseFragment(html)
  const tidy = (parent: DefaultTreeAdapterTypes.ParentNode) => {
    parent.childNodes = parent.childNodes.filter(
      (node) => !(isElement(node) && refused.has(node.tagName)) && node.nodeName !== '#comment',
    )
    for (const node of parent.childNodes) {
      if (!isElement(node)) continue
      node.attrs = node.attrs
        .filter(
          (attr) =>
            !attr.name.startsWith('on') &&
            !(dropped.unknownAttributes && attr.name.startsWith('data-')) &&
            !(dropped.styles && attr.name === 'style') &&
            !/^\s*javascript:/i.test(attr.value),
        )
        .map((attr) =>
          attr.name === 'id' && !attr.value.startsWith('kp-')
            ? { ...attr, value: `kp-${attr.value}` }
            : attr,
        )
      tidy(node)
    }
  }
  tidy(fragment)
  return serialize(fragment)
    .replace(/[–—’“”…é·]/g, (character) => entities[character] ?? character)
    .replace(/<\/(p|li|h[1-6]|ul|ol|div)>(?=<)/g, '</$1>\n')
}
