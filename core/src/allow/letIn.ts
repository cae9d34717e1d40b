import { parseFragment, serialize, type DefaultTreeAdapterTypes as Tree } from 'parse5'
import { addressOf } from '../document/index.ts'
import { activeStyle, styleLetIn } from './styles.ts'
import { remember } from '../remember/index.ts'

// What Wickerframe brings into a course (a template's words, an answer, an import, another course's page) is on this list:
// nothing in it runs, asks for anything by itself, or takes what people type. What stands in a course already is not its business.

const words = (list: string): ReadonlySet<string> => new Set(list.split(' '))

const elements = words(
  'a abbr address article aside b bdi bdo blockquote br caption cite code col colgroup dd del details dfn div dl dt em figcaption figure footer h1 h2 h3 h4 h5 h6 header hr i img ins kbd li main mark nav ol p pre q rp rt ruby s samp section small span strong sub summary sup table tbody td tfoot th thead time tr u ul var wbr',
)
/** Presentation MathML (MathML Core), without what holds other languages. */
export const formulaElements = words(
  'math menclose merror mfenced mfrac mi mmultiscripts mn mo mover mpadded mphantom mprescripts mroot mrow ms mspace msqrt mstyle msub msubsup msup mtable mtd mtext mtr munder munderover semantics annotation',
)
/** Elements that go with all that stands in them; what is in others that are not let in stays. */
const whole = words(
  'script style iframe frame frameset object embed applet svg template noscript noembed noframes textarea select option xmp plaintext title head audio video source track canvas portal',
)
const everywhere = words(
  'class dir id lang role style title data-follows data-wicker-block data-wicker-part',
)
const own: Readonly<Record<string, ReadonlySet<string>>> = {
  a: words('href hreflang rel target'),
  blockquote: words('cite'),
  col: words('span'),
  colgroup: words('span'),
  del: words('cite datetime'),
  details: words('open'),
  img: words('alt height loading src width'),
  ins: words('cite datetime'),
  li: words('value'),
  ol: words('reversed start type'),
  q: words('cite'),
  table: words('border summary'),
  td: words('abbr colspan headers rowspan'),
  th: words('abbr colspan headers rowspan scope'),
  time: words('datetime'),
}
/** What their elements may say of how they look and are read. */
export const formulaAttributes = words(
  'alttext columnalign columnspan dir display displaystyle encoding fence form height largeop linethickness lspace mathsize mathvariant maxsize minsize movablelimits notation open close separators rowspan rspace scriptlevel separator stretchy symmetric width xmlns',
)
const addresses = words('href src cite')

type Node = Tree.ChildNode
type Element = Tree.Element
const isElement = (node: Node): node is Element => 'tagName' in node

/** HTML that is let in, and what of it was not, by name. */
export interface LetIn {
  html: string
  refused: string[]
}

/** HTML of the kind that we and tidy editors write, told at a glance: it is let in as it is. */
const plain =
  /^[^<]*(?:<(?:\/?(?:b|blockquote|br|caption|code|dd|div|dl|dt|em|h[1-6]|hr|i|li|ol|p|section|small|span|strong|sub|sup|table|tbody|td|tfoot|th|thead|tr|u|ul)(?: (?:class|id|lang|title|scope|data-wicker-block|data-wicker-part)="[^"<>&]*")*|a href="(?:https?:\/\/|mailto:|ref:|part:|#|\/(?!\/))[^"<>&\s]*"|\/a) ?\/?>[^<]*)*$/

const escapeText = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')

/** Deeper than people nest; what stands deeper goes. */
const deepest = 100
/** A page is read again until it says the same twice; few need more than two readings. */
const mostReadings = 6

const read = remember(1000, (html: string): LetIn => {
  const refused = new Set<string>()
  const attributesOf = (element: Element, inFormula: boolean) =>
    element.attrs.flatMap((attribute) => {
      const { name, value } = attribute
      const known =
        everywhere.has(name) ||
        /^aria-[a-z]{1,30}$/.test(name) ||
        (inFormula ? formulaAttributes.has(name) : own[element.tagName]?.has(name) === true)
      if (!known) {
        // What has no meaning for who reads goes without a word; what would run is named.
        if (
          /^on|^(?:srcdoc|formaction|action|background|ping|xlink:href|data|poster|srcset)$/.test(
            name,
          )
        )
          refused.add(`the attribute ${name}`)
        return []
      }
      if (addresses.has(name) && addressOf(value) === null) {
        refused.add(`the address “${value.trim().slice(0, 40)}”`)
        return []
      }
      if (name === 'style' && activeStyle.test(value)) {
        refused.add('a style that loads something')
        return []
      }
      if (name !== 'style') return [attribute]
      // What else a style may not say has no meaning for who reads.
      const style = styleLetIn(value)
      return style === '' ? [] : [{ ...attribute, value: style }]
    })
  const cleaned = (nodes: readonly Node[], inFormula: boolean, depth: number): Node[] =>
    nodes.flatMap((node): Node[] => {
      if (!isElement(node)) return node.nodeName === '#text' ? [node] : []
      if (depth > deepest) {
        refused.add('elements in one another without end')
        return []
      }
      const name = node.tagName
      const formula = node.namespaceURI.endsWith('MathML') && formulaElements.has(name)
      const ours = inFormula ? formula : formula ? name === 'math' : elements.has(name)
      if (!ours || (!formula && !node.namespaceURI.endsWith('xhtml'))) {
        if (name !== 'font' && name !== 'center' && !name.includes(':'))
          refused.add(`the element <${name.slice(0, 30)}>`)
        return whole.has(name) || inFormula || !node.namespaceURI.endsWith('xhtml')
          ? []
          : cleaned(node.childNodes, false, depth + 1)
      }
      node.attrs = attributesOf(node, formula)
      node.childNodes = cleaned(node.childNodes, formula, depth + 1)
      return [node]
    })
  const once = (text: string): string => {
    const fragment = parseFragment(text)
    fragment.childNodes = cleaned(fragment.childNodes, false, 0)
    return serialize(fragment)
  }
  let before = html
  for (let reading = 0; reading < mostReadings; reading++) {
    const after = once(before)
    if (after === before) return { html: after, refused: [...refused].sort() }
    before = after
  }
  refused.add('elements that no two readers read alike')
  return { html: escapeText(html.replace(/<[^>]*>?/g, ' ')), refused: [...refused].sort() }
})

/**
 * What of a piece of HTML is let in: elements, attributes and addresses on the list. What tidy people write comes back byte for
 * byte; other HTML is written anew as it is read, so that no second reader finds in it what the first did not. What goes
 * without a word are attributes that nobody reads.
 */
export const letIn = (html: string): LetIn =>
  plain.test(html) ? { html, refused: [] } : read(html)
