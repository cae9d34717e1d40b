import { safeCell, type Template, type TemplateEdit } from '@wickerframe/core'
import type { Column } from './columns.ts'
import type { OutlineRow } from './outlineRows.ts'

/** What writing a text into one cell comes to; nothing where there is no such cell, or it cannot be read there. */
export const editsOfCell = (
  row: OutlineRow | undefined,
  column: Column | undefined,
  text: string,
  template: Template,
): TemplateEdit[] => {
  if (!row || !column?.read || !column.editable(row)) return []
  const reading = column.read(row, text, template)
  return reading.ok ? reading.edits : []
}

/** The topmost row's text goes into the same cell of the others. */
export const fillCellsDown = (
  [first, ...rest]: readonly OutlineRow[],
  column: Column | undefined,
  template: Template,
): TemplateEdit[] =>
  first && column?.read
    ? rest.flatMap((row) => editsOfCell(row, column, column.text(first, template), template))
    : []

/** Rows as a table that a spreadsheet reads: tabs between cells, a line for each row. */
export const cellsAsText = (
  rows: readonly OutlineRow[],
  columns: readonly Column[],
  template: Template,
): string =>
  rows
    .map((row) => columns.map((column) => safeCell(column.text(row, template))).join('\t'))
    .join('\n')

/** Cells of a table go into the cells from one on, as far as they can be read there. */
export const pasteCells = (
  text: string,
  rows: readonly OutlineRow[],
  columns: readonly Column[],
  from: { row: number; column: number },
  template: Template,
): TemplateEdit[] =>
  text
    .replace(/\r?\n$/, '')
    .split(/\r?\n/)
    .flatMap((line, down) =>
      line
        .split('\t')
        .flatMap((cell, right) =>
          editsOfCell(rows[from.row + down], columns[from.column + right], cell, template),
        ),
    )
