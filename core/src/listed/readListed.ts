import { escapedFormat, parseFormat } from '../naming/index.ts'
import { itemKinds, kindWords, type ItemKind } from '../template/index.ts'
import { columnsOf, isKindWord, type ColumnRole } from './columnsOf.ts'
import { folded, rowsOf, treesOf } from './folded.ts'
import { kindOfWords } from './kindOfWords.ts'
import { longestName, mostLines, stepped, type Line } from './line.ts'
import { linesOfHtml } from './linesOfHtml.ts'
import { linesOfText, rowsOfTable } from './linesOfText.ts'
import { nothingSaid, saidFields, type ListedRow } from './listedRow.ts'
import { repeatOfWords } from './repeatOfWords.ts'

/** Rows read from a list or a table, and what whoever takes them should know, in sentences. */
export interface Listed {
  rows: ListedRow[]
  notes: string[]
}

/** Words as a naming format: their braces are characters, but where they were meant for a field; what is wrong with it is told. */
const formatOfWords = (words: string): string =>
  parseFormat(words).ok || /\{[a-z]+/iu.test(words) ? words : escapedFormat(words)

const kindOf = (said: string, name: string): ItemKind | 'module' => {
  const word = said.trim().toLowerCase()
  if (word === 'module') return 'module'
  const known = itemKinds.find((kind) => kind === word || kindWords(kind) === word)
  return known ?? kindOfWords(word === '' ? name : `${name} ${word}`)
}

const rowOf = (
  depth: number,
  words: string,
  said: Partial<Record<ColumnRole, string>> = {},
): ListedRow => {
  const marked = /^\[([^\]]{3,20})\]\s*(.+)$/u.exec(words)
  const isMarked = marked !== null && isKindWord(marked[1] ?? '')
  const { name, repeats } = repeatOfWords(isMarked ? (marked[2] ?? '') : words)
  const kind = kindOf(isMarked ? (marked[1] ?? '') : (said.kind ?? ''), name)
  return {
    ...nothingSaid,
    ...Object.fromEntries(saidFields.map((field) => [field, said[field]?.trim() ?? ''])),
    depth,
    kind,
    name: formatOfWords(name),
    repeats: said.repeats?.trim() || repeats,
    url: kind === 'web-link' && /^https?:\/\//iu.test(name) ? name : '',
  }
}

/** What others stand in is a module, whatever it is called; what it holds comes with it and need not repeat as it does. */
const withModules = (rows: readonly ListedRow[]): ListedRow[] => {
  const made = rows.map((row, i) => ({
    ...row,
    kind: (rows[i + 1]?.depth ?? 0) > row.depth ? ('module' as const) : row.kind,
  }))
  const open: ListedRow[] = []
  for (const row of made) {
    while (open.length > 0 && (open.at(-1)?.depth ?? 0) >= row.depth) open.pop()
    const perOf = (repeats: string): string | undefined => /^each (\w+)/.exec(repeats)?.[1]
    const around = open.map(({ repeats }) => perOf(repeats))
    if (row.repeats === `each ${perOf(row.repeats)}` && around.includes(perOf(row.repeats)))
      row.repeats = ''
    open.push(row)
  }
  return made
}

const rowsOfColumns = (table: readonly (readonly string[])[]): ListedRow[] => {
  const { roles, rows } = columnsOf(table)
  const made: ListedRow[] = []
  let module = ''
  for (const cells of rows) {
    const said: Partial<Record<ColumnRole, string>> = {}
    for (const [column, role] of roles.entries()) if (role) said[role] = cells[column] ?? ''
    const around = said.module?.trim() ?? ''
    if (around !== '' && around !== module) {
      module = around
      made.push({ ...rowOf(0, around), kind: 'module' })
    }
    const name = said.name?.trim() ?? ''
    if (name !== '') made.push(rowOf(module === '' ? 0 : 1, name, said))
  }
  return made
}

const count = (many: number, one: string): string => `${many} ${one}${many === 1 ? '' : 's'}`

/**
 * Reads an outline that was written elsewhere: a list in plain text (indented, with bullets or numbers), what a word processor, a
 * page or a spreadsheet copied, a table with headings or without. Kinds and repeats are guessed from words; rows that differ by a
 * number alone become one that repeats. Nothing of it is taken before somebody has seen it.
 * @param html what came with the text as HTML; empty without
 */
export const readListed = (text: string, html = ''): Listed => {
  const notes: string[] = []
  const table = text.includes('\t') ? rowsOfTable(text) : []
  const isRow = (row: readonly string[]) => row.filter((cell) => cell !== '').length > 1
  const isTabbed = table.filter(isRow).length * 2 > table.length
  const fromHtml = html.trim() === '' ? null : linesOfHtml(html)
  const lines: Line[] = fromHtml && fromHtml.lines.length > 0 ? fromHtml.lines : linesOfText(text)
  const taken = (all: readonly Line[]): Line[] => {
    const names = all.filter(({ cells }) => cells.every((cell) => cell.length <= longestName))
    if (names.length < all.length)
      notes.push(`${count(all.length - names.length, 'paragraph')} too long for a name: left out.`)
    if (names.length > mostLines)
      notes.push(
        `Only the first ${mostLines} lines are taken; ${names.length - mostLines} more are not.`,
      )
    return names.slice(0, mostLines)
  }
  const isTable = fromHtml?.lines.length ? fromHtml.isTable : isTabbed
  const cells = fromHtml?.isTable ? fromHtml.lines : table.map((row) => ({ depth: 0, cells: row }))
  const read = isTable
    ? rowsOfColumns(taken(cells).map(({ cells }) => cells))
    : taken(lines).map(({ depth, cells }) =>
        rowOf(depth, cells.filter((cell) => cell !== '').join(' · ')),
      )
  const depths = stepped(read.map(({ depth, name }) => ({ depth, cells: [name] })))
  const rows = withModules(read.map((row, i) => ({ ...row, depth: depths[i]?.depth ?? 0 })))
  const { trees, repetitions, repeated, topics } = folded(treesOf(rows))
  if (repetitions > 0)
    notes.push(
      `${count(repetitions, 'row')} that differ by their number became ${repeated === 1 ? 'one that repeats' : `${repeated} that repeat`}.`,
    )
  if (topics > 0)
    notes.push(`What ${topics} of them were about is a field now: each course says it for itself.`)
  return { rows: withModules(rowsOf(trees)), notes }
}
