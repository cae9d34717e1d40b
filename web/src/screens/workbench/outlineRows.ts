import {
  anchorWords,
  everyExpected,
  expandCourse,
  homePageKey,
  isFromAbove,
  isModule,
  type Block,
  type Exception,
  type ExpectedCourse,
  type ExpectedPart,
  type Facts,
  type Part,
  type Template,
} from '@wickerframe/core'

interface RowPlace {
  /** The part's or exception's key; for an element of the home page its block's key after it. */
  key: string
  depth: number
  /** Key of the module or exception it stands in; null at the top. */
  parent: string | null
  index: number
  siblings: number
  /** Whether rows stand under it. */
  opens: boolean
  /** Whether it comes from the layer above. */
  above: boolean
  /** The first name it would have in the course it is worked out for, and how often it would be there. */
  rendered: string
  occurrences: number
}
/** One row of the outline sheet. */
export type OutlineRow = RowPlace &
  (
    | { row: 'home'; part: null }
    | { row: 'element'; block: Block; part: null }
    | { row: 'part'; part: Part }
    | { row: 'exception'; exception: Exception; module: string; part: null }
  )

/** Whose first name a designer reads where a page speaks to its reader by name. */
const sampleReader = 'Robin'

/** A template in a course as its students will read it. */
export const expandedFor = (template: Template, facts: Facts | null): ExpectedCourse | null => {
  if (!facts) return null
  const { readerName, ...others } = facts
  const read = readerName === undefined ? others : { ...others, readerName: sampleReader }
  const result = expandCourse({ template, facts: read })
  return result.ok ? result.value : null
}

const elementKey = (block: string): string => `${homePageKey}/${block}`
/** Key of the part whose slip a row opens. */
export const slipKeyOf = (rowKey: string): string => rowKey.split('/')[0] ?? rowKey
export const elementWords = (block: Block): string =>
  (block.element ?? block.key).replaceAll('-', ' ')

/** The repetition shown for a part that repeats: that of week 3 where there is one, which is neither first nor last. */
export const shownOccurrence = (occurrences: readonly ExpectedPart[]): ExpectedPart | null =>
  occurrences.find((part) => part.week?.number === 3) ?? occurrences[0] ?? null

/** The part of the expected course that stands for a part of the template: of a repeating one the repetition shown. */
export const expectedPartOf = (
  expected: ExpectedCourse | null,
  part: string | null,
): ExpectedPart | null => {
  if (!expected) return null
  return part === homePageKey
    ? expected.home
    : shownOccurrence(everyExpected(expected.parts).filter(({ key }) => key === part))
}

/** The template as rows: the home page, then every part in order, each with its name in the chosen course. */
export const outlineRows = (
  template: Template,
  upper: Template | null,
  expected: ExpectedCourse | null,
): OutlineRow[] => {
  const byKey = new Map<string, ExpectedPart[]>()
  for (const part of expected ? everyExpected(expected.parts) : []) {
    const same = byKey.get(part.key)
    if (same) same.push(part)
    else byKey.set(part.key, [part])
  }
  const fromAbove = (key: string) => isFromAbove(upper, key)
  const rows: OutlineRow[] = [
    {
      row: 'home',
      part: null,
      key: homePageKey,
      depth: 0,
      parent: null,
      index: -1,
      siblings: 0,
      opens: template.home.blocks.length > 0,
      above: upper !== null,
      rendered: expected?.home.name ?? '',
      occurrences: 1,
    },
    ...template.home.blocks.map((block, index): OutlineRow => ({
      row: 'element',
      block,
      part: null,
      key: elementKey(block.key),
      depth: 1,
      parent: homePageKey,
      index,
      siblings: template.home.blocks.length,
      opens: false,
      above: upper?.home.blocks.some(({ key }) => key === block.key) ?? false,
      rendered: elementWords(block),
      occurrences: 1,
    })),
  ]
  const visit = (parts: readonly Part[], depth: number, parent: string | null) =>
    parts.forEach((part, index) => {
      const occurrences = byKey.get(part.key) ?? []
      rows.push({
        row: 'part',
        part,
        key: part.key,
        depth,
        parent,
        index,
        siblings: parts.length,
        opens: isModule(part) && part.items.length + part.exceptions.length > 0,
        above: fromAbove(part.key),
        rendered: shownOccurrence(occurrences)?.name ?? '',
        occurrences: occurrences.length,
      })
      if (!isModule(part)) return
      visit(part.items, depth + 1, part.key)
      part.exceptions.forEach((exception, i) => {
        rows.push({
          row: 'exception',
          exception,
          module: part.key,
          part: null,
          key: exception.key,
          depth: depth + 1,
          parent: part.key,
          index: i,
          siblings: part.exceptions.length,
          opens: exception.add.length > 0,
          above: fromAbove(exception.key),
          rendered: `${anchorWords(exception.anchor)} is different`,
          occurrences: 1,
        })
        visit(exception.add, depth + 2, exception.key)
      })
    })
  visit(template.parts, 0, null)
  return rows
}

export interface RowFilter {
  text: string
  kind: string
  strength: string
}

const strengthOf = (row: OutlineRow, template: Template): string =>
  row.row === 'part'
    ? row.part.strength
    : row.row === 'element'
      ? row.block.strength
      : row.row === 'home'
        ? template.home.strength
        : ''
const kindOf = (row: OutlineRow): string =>
  row.row === 'part' ? row.part.kind : row.row === 'element' ? 'element' : row.row

/** Rows that are shown: those found, with what they stand in; nothing under a closed row. */
export const shownRows = (
  rows: readonly OutlineRow[],
  template: Template,
  filter: RowFilter,
  closed: ReadonlySet<string>,
): OutlineRow[] => {
  const text = filter.text.trim().toLowerCase()
  const filtered = text !== '' || filter.kind !== '' || filter.strength !== ''
  const keep = new Set<string>()
  if (filtered) {
    const byKey = new Map(rows.map((row) => [row.key, row]))
    for (const row of rows) {
      const names = `${row.rendered} ${row.part?.name ?? ''} ${row.key}`.toLowerCase()
      if (
        (text !== '' && !names.includes(text)) ||
        (filter.kind !== '' && kindOf(row) !== filter.kind) ||
        (filter.strength !== '' && strengthOf(row, template) !== filter.strength)
      )
        continue
      for (
        let at: OutlineRow | undefined = row;
        at;
        at = at.parent === null ? undefined : byKey.get(at.parent)
      )
        keep.add(at.key)
    }
    return rows.filter((row) => keep.has(row.key))
  }
  const shown: OutlineRow[] = []
  let hiddenBelow: number | null = null
  for (const row of rows) {
    if (hiddenBelow !== null && row.depth > hiddenBelow) continue
    hiddenBelow = closed.has(row.key) && row.opens ? row.depth : null
    shown.push(row)
  }
  return shown
}
