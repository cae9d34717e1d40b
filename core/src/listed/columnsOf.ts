import { endOfDay, parseOffset } from '../calendar/index.ts'
import {
  audiences,
  itemKinds,
  kindWords,
  parseMay,
  parseRepeat,
  strengths,
} from '../template/index.ts'
import type { SaidField } from './listedRow.ts'

/** What a column of a table holds: what a row is called, what it stands in, its kind, or what is said of it. */
export type ColumnRole = 'name' | 'module' | 'kind' | SaidField

/** How columns are headed; common practice, no source. */
const headings: readonly (readonly [ColumnRole, RegExp])[] = [
  ['due', /^(?:due(?: date)?|deadline|due when)$/iu],
  ['points', /^(?:points?|pts\.?|marks?|max(?:imum)?(?: points| marks)?|score)$/iu],
  ['kind', /^(?:kind|type|item type|activity type|format)$/iu],
  ['repeats', /^(?:repeats?|repetition|frequency|how often|often)$/iu],
  ['strength', /^(?:strength|required\??|must|priority)$/iu],
  ['audience', /^(?:audience|seen by|visible to|for whom|who sees it)$/iu],
  ['may', /^(?:may|instructors? may|permissions?|instructors? can)$/iu],
  ['module', /^(?:modules?|weeks?|units?|sections?|parts?|folders?)$/iu],
  [
    'name',
    /^(?:names?|named|titles?|items?|activit(?:y|ies)|elements?|what|content|parts? named)$/iu,
  ],
]

/** The roles of columns by their headings; null where the row is no heading. */
const byHeadings = (cells: readonly string[]): (ColumnRole | null)[] | null => {
  const used = new Set<ColumnRole>()
  const roles = cells.map((cell) => {
    const role = headings.find(([role, pattern]) => !used.has(role) && pattern.test(cell.trim()))
    if (role) used.add(role[0])
    return role?.[0] ?? null
  })
  const said = cells.filter((cell) => cell.trim() !== '').length
  if (used.size < 2 || used.size * 2 < said) return null
  // A table of modules and nothing else names the modules.
  if (!used.has('name')) {
    const named = roles.indexOf('module')
    if (named < 0) return null
    roles[named] = 'name'
  }
  return roles
}

const kindNames = new Set(['module', ...itemKinds.flatMap((kind) => [kind, kindWords(kind)])])
export const isKindWord = (text: string): boolean => kindNames.has(text.trim().toLowerCase())
const isOneOf = (words: readonly string[]) => (text: string) => words.includes(text.toLowerCase())

/** What the cells of a column look like. */
const looks: readonly (readonly [ColumnRole, (text: string) => boolean])[] = [
  ['kind', isKindWord],
  ['strength', isOneOf(strengths)],
  ['audience', isOneOf(audiences)],
  ['points', (text) => /^\d{1,5}(?:[.,]\d+)?$/.test(text)],
  ['repeats', (text) => parseRepeat(text).ok],
  ['due', (text) => parseOffset(text, endOfDay).ok && !/^on /i.test(text)],
  ['may', (text) => parseMay(text).ok],
]

/** The roles of columns by what stands in them: the first that is nothing else is what rows are called. */
const byContent = (rows: readonly (readonly string[])[]): (ColumnRole | null)[] => {
  const width = Math.max(0, ...rows.map((row) => row.length))
  const used = new Set<ColumnRole>()
  const roles = Array.from({ length: width }, (_, column): ColumnRole | null => {
    const said = rows.map((row) => row[column]?.trim() ?? '').filter((cell) => cell !== '')
    if (said.length === 0) return null
    const role = looks.find(([role, like]) => !used.has(role) && said.every(like))?.[0] ?? null
    if (role) used.add(role)
    return role
  })
  const isWords = (column: number): boolean =>
    roles[column] === null && rows.some((row) => (row[column] ?? '').trim() !== '')
  const free = roles.flatMap((_, column) => (isWords(column) ? [column] : []))
  const [first, second] = free
  // What stands in a column again and again, with something else beside it, is what the rows stand in.
  const again = (column: number): boolean => {
    const said = rows.map((row) => row[column]?.trim() ?? '')
    return said.some((cell, i) => i > 0 && (cell === '' || cell === said[i - 1]))
  }
  if (first !== undefined && second !== undefined && again(first)) {
    roles[first] = 'module'
    roles[second] = 'name'
  } else if (first !== undefined) roles[first] = 'name'
  return roles
}

/** What the columns of a table are, and its rows without a heading; columns of which nothing is known are null. */
export const columnsOf = (
  rows: readonly (readonly string[])[],
): { roles: (ColumnRole | null)[]; rows: readonly (readonly string[])[] } => {
  const headed = byHeadings(rows[0] ?? [])
  return headed ? { roles: headed, rows: rows.slice(1) } : { roles: byContent(rows), rows }
}
