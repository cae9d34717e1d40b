import type { HouseStyle } from './houseStyle.ts'
import { grounded, houseRoles, styleSheetOf, type StyleSheet } from './styleSheet.ts'

/** Tags as `letIn` writes them: lower case, attributes in double quotes. What stands in a value is part of its tag. */
const tag = /<(\/?)([a-z][a-z0-9]*)((?:\s+[a-z][a-z0-9:_-]*(?:="[^"]*")?)*)\s*(\/?)>/g
const classAttribute = /\sclass="house-([a-z-]+)"/
const styleAttribute = /\sstyle="/
const empty = new Set(['br', 'hr', 'img', 'wbr', 'col'])

/** An element that is open, and on what ground its words stand; null: on that of the page. */
interface Open {
  name: string
  ground: 'paper' | 'main' | null
}

const groundOf = (role: string | null, inherited: Open['ground']): Open['ground'] =>
  role === 'plate' ? 'main' : role !== null && grounded.has(role) ? 'paper' : inherited

/** What an element without a role gets. */
const elementStyle = (
  name: string,
  attributes: string,
  ground: Open['ground'],
  sheet: StyleSheet,
): string => {
  switch (name) {
    // On a ground of its own a heading is told by that already.
    case 'h2':
    case 'h3':
      return ground === null ? sheet.heading : ''
    case 'a':
      return ground === null ? '' : ground === 'main' ? sheet.linkOnMain : sheet.linkOnGround
    case 'hr':
      return sheet.rule
    case 'blockquote':
      return sheet.quote
    case 'table':
      return sheet.table
    case 'th':
      return attributes.includes('scope="row"') ? sheet.cell : sheet.columnHead
    case 'td':
      return sheet.cell
    default:
      return ''
  }
}

/**
 * HTML that was let in, with a house style in it as inline styles. What has a style of its own keeps it. Without a house style
 * nothing is added, and the names of roles go.
 */
export const styledHtml = (html: string, style: HouseStyle | undefined): string => {
  const sheet = style ? styleSheetOf(style) : null
  const open: Open[] = []
  return html.replace(
    tag,
    (whole, closing: string, name: string, attributes: string, ending: string) => {
      if (closing !== '') {
        const at = open.findLastIndex((element) => element.name === name)
        if (at >= 0) open.length = at
        return whole
      }
      const named = classAttribute.exec(attributes)?.[1]
      const role = houseRoles.find((known) => known === named) ?? null
      const rest = role === null ? attributes : attributes.replace(classAttribute, '')
      const around = open.at(-1)?.ground ?? null
      const ground = groundOf(role, around)
      if (ending === '' && !empty.has(name)) open.push({ name, ground })
      const plain = role === null ? whole : `<${name}${rest}>`
      if (sheet === null || styleAttribute.test(rest)) return plain
      const declarations =
        role === null ? elementStyle(name, rest, ground, sheet) : sheet.roles[role]
      return declarations === '' ? plain : `<${name}${rest} style="${declarations}">`
    },
  )
}
