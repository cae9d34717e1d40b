import { hostOf } from '@wickerframe/core'
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
/** From where the practice platform shows something within its pages. */
const framedHosts: ReadonlySet<string> = new Set(['film.kestrelsound.example'])
const refused = new Set(['script', 'style', 'object', 'embed', 'link', 'meta', 'base'])

/** Whether an element is not kept: it runs, or shows something of a host that is not on the list. */
const isRefused = ({ tagName, attrs }: Element): boolean =>
  refused.has(tagName) ||
  (tagName === 'iframe' &&
    !framedHosts.has(hostOf(attrs.find(({ name }) => name === 'src')?.value ?? '') ?? ''))

const isElement = (node: Node): node is Element => 'tagName' in node

/** What the platform drops of the HTML it is given, besides what runs. */
export interface Dropped {
  unknownAttributes: boolean
  styles: boolean
}

/**
 * How the practice platform writes HTML it is given, as real platforms do in their own ways: scripts, foreign frames and event
 * attributes dropped, ids prefixed, some characters as named entities, paragraphs wrapped onto lines of their own, and,
 * where it is told to, attributes it does not know and styles stripped.
 */
export const rewriteHtml = (html: string, dropped: Dropped): string => {
  const fragment = parseFragment(html)
  const tidy = (parent: DefaultTreeAdapterTypes.ParentNode) => {
    parent.childNodes = parent.childNodes.filter(
      (node) => !(isElement(node) && isRefused(node)) && node.nodeName !== '#comment',
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
