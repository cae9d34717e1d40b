import { expandCourse, homePageKey, isModule, type Block, type ExpectedCourse, type ExpectedPart, type Facts, type Part, type Repeat, type Template } from '@wickerframe/core'

/** One row of the outline sheet. */
export interface OutlineRow {
  /** The part's key; for an element of the home page its block's key after it. */
  key: string
  /** Key of the block, when the row is an element of the home page. */
  block: string | null
  kind: string
  depth: number
  format: string
  strength: string
  audience: string
  repeats: string
  /** The first name it would have in the course it is worked out for, and how many there would be. */
  rendered: string
  turns: number
  parent: string | null
  index: number
  siblings: number
}

export const repeatWords = (repeat: Repeat | undefined): string => {
  if (!repeat) return ''
  const except = repeat.except.length > 0 ? `, not ${repeat.except.join(', ')}` : ''
  if (repeat.per === 'times') return `${repeat.times ?? 1} times`
  const unit = repeat.per
  const range = repeat.from !== undefined || repeat.to !== undefined ? `, ${repeat.from ?? 1} to ${repeat.to ?? 'last'}` : ''
  return `${repeat.every === 1 ? `each ${unit}` : repeat.every === 2 && (repeat.from ?? 2) % 2 === 0 ? `even ${unit}s` : `every ${repeat.every} ${unit}s`}${range}${except}`
}

export const expandedFor = (template: Template, facts: Facts | null): ExpectedCourse | null => {
  if (!facts) return null
  const result = expandCourse({ template, facts })
  return result.ok ? result.value : null
}

const everyPart = (parts: readonly ExpectedPart[]): ExpectedPart[] => parts.flatMap((part) => [part, ...everyPart(part.items)])

const elementKey = (block: string): string => `${homePageKey}/${block}`
/** Key of the part whose slip a row opens. */
export const slipKeyOf = (rowKey: string): string => rowKey.split('/')[0] ?? rowKey
const elementWords = (block: Block): string => (block.element ?? block.key).replaceAll('-', ' ')

/** The template as rows: the home page, then every part in order, each with its name in the chosen course. */
export const outlineRows = (template: Template, expected: ExpectedCourse | null): OutlineRow[] => {
  const byKey = new Map<string, ExpectedPart[]>()
  for (const part of expected ? everyPart(expected.parts) : []) byKey.set(part.key, [...(byKey.get(part.key) ?? []), part])
  const rows: OutlineRow[] = [
    { key: homePageKey, block: null, kind: 'page', depth: 0, format: template.home.name, strength: template.home.strength, audience: 'students', repeats: '', rendered: expected?.home.name ?? '', turns: 1, parent: null, index: -1, siblings: 0 },
    ...template.home.blocks.map((block, index): OutlineRow => ({
      key: elementKey(block.key), block: block.key, kind: 'element', depth: 1, format: block.kind === 'title' ? block.text : '', strength: block.strength, audience: 'students', repeats: block.kind.replace('-', ' '),
      rendered: elementWords(block), turns: 1, parent: homePageKey, index, siblings: template.home.blocks.length,
    })),
  ]
  const visit = (parts: readonly Part[], depth: number, parent: string | null) =>
    parts.forEach((part, index) => {
      const turns = byKey.get(part.key) ?? []
      rows.push({
        key: part.key, block: null, kind: part.kind, depth, format: part.name, strength: part.strength, audience: part.audience, repeats: [repeatWords(part.repeat), part.position === 'in-order' ? '' : part.position].filter(Boolean).join('; '),
        rendered: turns.find((one) => one.week?.number === 3)?.name ?? turns[0]?.name ?? '', turns: turns.length, parent, index, siblings: parts.length,
      })
      if (isModule(part)) visit(part.items, depth + 1, part.key)
    })
  visit(template.parts, 0, null)
  return rows
}

/** A key that is not taken, made from a name. */
export const freshKey = (name: string, taken: ReadonlySet<string>): string => {
  const base = name.toLowerCase().replace(/\{[^}]*\}/g, '').replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '').slice(0, 60) || 'part'
  for (let n = 1; ; n++) {
    const key = n === 1 ? base : `${base}-${n}`
    if (!taken.has(key)) return key
  }
}
