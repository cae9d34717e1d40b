import { parseFragment, type DefaultTreeAdapterTypes as Tree } from 'parse5'

const active = new Set(
  'script foreignobject iframe object embed audio video canvas handler listener style link meta base set'.split(
    ' ',
  ),
)
const isElement = (node: Tree.ChildNode): node is Tree.Element => 'tagName' in node

/** Why a drawing (SVG) is not let in: what of it runs, or asks for something elsewhere, by name; empty when it only draws. */
export const refusedInDrawing = (svg: string): string[] => {
  const refused = new Set<string>()
  if (/<!ENTITY/i.test(svg)) refused.add('an entity of its own')
  if (/<\?xml-stylesheet/i.test(svg)) refused.add('a style sheet')
  const look = (nodes: readonly Tree.ChildNode[]): void => {
    for (const node of nodes) {
      if (!isElement(node)) continue
      const name = node.tagName.toLowerCase().replace(/^svg:/, '')
      if (active.has(name)) refused.add(`the element <${name}>`)
      for (const { name: attribute, value } of node.attrs) {
        const local = attribute.toLowerCase().replace(/^xlink:/, '')
        if (local.startsWith('on')) refused.add(`the attribute ${local}`)
        else if (local === 'href' && !value.trim().startsWith('#'))
          refused.add(`the address “${value.trim().slice(0, 40)}”`)
        else if (local === 'style' || /url\s*\(/i.test(value)) {
          if (/url\s*\(\s*(?!['"]?#)|expression|@import|\\/i.test(value))
            refused.add('a style that loads something')
        }
        // An animation can give another element an address.
        if (local === 'attributename' && /href|^on/i.test(value))
          refused.add(`an animation of ${value.trim().slice(0, 20)}`)
      }
      look(node.childNodes)
    }
  }
  look(parseFragment(svg).childNodes)
  return [...refused].sort()
}
