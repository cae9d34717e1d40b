import { describe, expect, it } from 'vitest'
import {
  applyEdit,
  emptyTemplate,
  everyPart,
  newItem,
  newModule,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'
import { columns } from './columns.ts'
import { outlineRows, type OutlineRow } from './outlineRows.ts'
import { cellsAsText, editsOfCell, fillCellsDown, pasteCells } from './sheetCells.ts'
import { dropWhere } from './useSheetDrag.ts'

const template: Template = {
  ...emptyTemplate('small', 'Small'),
  parts: [
    {
      ...newModule('week', 'Week {week}'),
      items: [newItem('page', 'first', 'First'), newItem('assignment', 'second', 'Second')],
    },
  ],
}
const rows = outlineRows(template, null, null)
const rowOf = (key: string): OutlineRow => {
  const row = rows.find((candidate) => candidate.key === key)
  if (!row) throw new Error(`no row ${key}`)
  return row
}
const column = (id: string) => columns.find((candidate) => candidate.id === id)
const after = (edits: readonly TemplateEdit[]): Map<string, { name: string; strength: string }> => {
  let now = template
  for (const edit of edits) {
    const next = applyEdit(now, edit)
    if (!next.ok) throw new Error(JSON.stringify(next.problems))
    now = next.value.template
  }
  return new Map(everyPart(now).map((part) => [part.key, part]))
}

describe('cells of the outline sheet', () => {
  it('are written one by one, and left where nothing can be read', () => {
    expect(
      after(editsOfCell(rowOf('first'), column('strength'), 'may', template)).get('first')
        ?.strength,
    ).toBe('may')
    expect(editsOfCell(rowOf('first'), column('strength'), 'perhaps', template)).toEqual([])
    expect(editsOfCell(undefined, column('strength'), 'may', template)).toEqual([])
    expect(editsOfCell(rowOf('first'), column('rendered'), 'x', template)).toEqual([])
  })
  it('are filled down from the topmost chosen one, which itself stays', () => {
    const chosen = [rowOf('first'), rowOf('second')]
    const edits = fillCellsDown(chosen, column('name'), template)
    expect(after(edits).get('second')?.name).toBe('First')
    expect(after(edits).get('first')?.name).toBe('First')
    expect(fillCellsDown([], column('name'), template)).toEqual([])
  })
  it('go out as a table and come in again as they were', () => {
    const text = cellsAsText(rows, columns, template)
    expect(text.split('\n')).toHaveLength(rows.length)
    expect(new Set(text.split('\n').map((line) => line.split('\t').length))).toEqual(
      new Set([columns.length]),
    )
    const edits = pasteCells(text, rows, columns, { row: 0, column: 0 }, template)
    expect([...after(edits)]).toEqual([...after([])])
  })
  it('go out so that no spreadsheet takes a name for a formula', () => {
    const odd: Template = { ...template, parts: [newItem('page', 'odd', '=SUM(A1)')] }
    const text = cellsAsText(outlineRows(odd, null, null), columns, odd)
    expect(text.split(/[\t\n]/).some((cell) => cell.startsWith('='))).toBe(false)
  })
  it('are pasted from where one stands, and what reaches past the sheet is dropped', () => {
    const at = rows.indexOf(rowOf('second'))
    const name = columns.findIndex(({ id }) => id === 'name')
    const edits = pasteCells('A\r\nB\r\nC\r\n', rows, columns, { row: at, column: name }, template)
    expect(after(edits).get('second')?.name).toBe('A')
    expect(after(edits).size).toBe(3)
  })
})

describe('a row that is dropped on another', () => {
  it.each([
    ['week', 0.1, 'before'],
    ['week', 0.5, 'inside'],
    ['week', 0.9, 'after'],
    ['first', 0.4, 'before'],
    ['first', 0.5, 'after'],
  ])('%s at %d of its height goes %s', (key, share, where) => {
    expect(dropWhere(rowOf(key), share)).toBe(where)
  })
})
