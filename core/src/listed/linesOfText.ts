import { stepped, type Line } from './line.ts'

const tabWidth = 4
/** More than any mark counts. */
const markWidth = 4
const bullet = /^(?:[•·▪◦‣●○■*–—-]|o(?=\t| {2}))\s+/u
/** `1.`, `1)`, `a)`, `iv.`; how deep `1.2.3` stands is told by its numbers. */
const ordinal = /^(?:\(?(?:\d{1,3}|[a-z]|[ivx]{1,5})[.)]|(\d{1,3}(?:\.\d{1,3})+)\.?)\s+/iu

const widthOf = (indent: string): number => {
  let width = 0
  for (const character of indent)
    width = character === '\t' ? (Math.floor(width / tabWidth) + 1) * tabWidth : width + 1
  return width
}

/** A line as a name may be: without the characters that write lines of their own. */
export const plain = (text: string): string =>
  text.replace(/[\p{Cc}\p{Cs}\u2028\u2029]+/gu, ' ').trim()

/** Lines of plain text: indented, with bullets or numbers, or with tabs between the cells of a table. */
export const linesOfText = (text: string): Line[] => {
  const read = text.split(/\r?\n|\r/).flatMap((line): Line[] => {
    if (plain(line) === '') return []
    const indent = /^[\s\u00a0]*/u.exec(line)?.[0] ?? ''
    const said = line.slice(indent.length).trimEnd()
    const numbered = ordinal.exec(said)
    const parts = numbered?.[1]?.split('.').length ?? 1
    // At the same indent, what has a mark stands in what has none: numbers in words, letters in numbers, bullets in all of them.
    const mark = bullet.test(said) ? 3 : /^\(?\d/.test(numbered?.[0] ?? '') ? 1 : numbered ? 2 : 0
    const bare = said.replace(bullet, '').replace(ordinal, '')
    return [
      {
        depth: (widthOf(indent) + (parts - 1) * tabWidth) * markWidth + mark,
        cells: bare.split('\t').map(plain),
      },
    ]
  })
  return stepped(read)
}

/** A table, in which an empty first cell is a cell, and no indentation. */
export const rowsOfTable = (text: string): string[][] =>
  text
    .split(/\r?\n|\r/)
    .filter((line) => plain(line) !== '')
    .map((line) => line.split('\t').map(plain))
