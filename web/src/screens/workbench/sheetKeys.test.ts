import { describe, expect, it } from 'vitest'
import { emptyTemplate, newItem, newModule, type Template } from '@wickerframe/core'
import { columns } from './columns.ts'
import { outlineRows } from './outlineRows.ts'
import { actOfKey, type AtCell, type Key, type SheetAct } from './sheetKeys.ts'

const template: Template = {
  ...emptyTemplate('small', 'Small'),
  parts: [
    { ...newModule('week', 'Week {week}'), items: [newItem('page', 'overview', 'Overview')] },
  ],
}
const rows = outlineRows(template, null, null)
const rowOf = (key: string) => {
  const row = rows.find((candidate) => candidate.key === key)
  if (!row) throw new Error(`no row ${key}`)
  return row
}
const at = (more: Partial<AtCell> = {}): AtCell => ({
  row: rowOf('overview'),
  column: columns[1],
  columnAt: 1,
  columnCount: columns.length,
  isClosed: false,
  mayEdit: true,
  mayType: true,
  severalChosen: false,
  ...more,
})
const pressed = (keys: string): Key => {
  const parts = keys.split('+')
  return {
    key: parts.at(-1) || '+',
    ctrlKey: parts.includes('Ctrl'),
    metaKey: parts.includes('Meta'),
    altKey: parts.includes('Alt'),
    shiftKey: parts.includes('Shift'),
  }
}

describe('a key in the outline sheet', () => {
  it.each<[string, SheetAct | null]>([
    ['Ctrl+z', { act: 'undo' }],
    ['Meta+z', { act: 'undo' }],
    ['Ctrl+Shift+Z', { act: 'redo' }],
    ['Ctrl+y', { act: 'redo' }],
    ['Ctrl+d', { act: 'fill-down' }],
    ['Ctrl+a', { act: 'choose-all' }],
    ['Ctrl+Enter', { act: 'add', kind: 'page' }],
    ['Ctrl+Shift+Enter', { act: 'add', kind: 'module' }],
    ['Ctrl+c', null],
    ['Alt+ArrowUp', { act: 'move', way: 'up' }],
    ['Alt+ArrowRight', { act: 'move', way: 'in' }],
    ['Alt+ArrowLeft', { act: 'move', way: 'out' }],
    ['Alt+x', null],
    ['ArrowDown', { act: 'step', by: 1, extend: false }],
    ['Shift+ArrowUp', { act: 'step', by: -1, extend: true }],
    ['PageDown', { act: 'step', by: 15, extend: false }],
    ['Home', { act: 'go', row: 'first' }],
    ['End', { act: 'go', row: 'last' }],
    ['Tab', { act: 'column', by: 1 }],
    ['Shift+Tab', { act: 'column', by: -1 }],
    ['Enter', { act: 'type' }],
    ['F2', { act: 'type' }],
    ['F4', { act: 'open-slip' }],
    ['Delete', { act: 'remove' }],
    ['Escape', { act: 'choose-none' }],
    ['k', { act: 'type', start: 'k' }],
    ['é', { act: 'type', start: 'é' }],
    ['?', null],
    ['/', null],
    ['Dead', null],
    ['F5', null],
  ])('%s', (keys, act) => {
    expect(actOfKey(pressed(keys), at())).toEqual(act)
  })
  it('never edits where somebody may only read', () => {
    const reading = at({ mayEdit: false, mayType: false })
    const edits = ['Ctrl+d', 'Ctrl+Enter', 'Alt+ArrowUp', 'Delete', 'Backspace', 'F2', 'k']
    expect(edits.map((keys) => actOfKey(pressed(keys), reading))).toEqual(edits.map(() => null))
    expect(actOfKey(pressed('Enter'), reading)).toEqual({ act: 'open-slip' })
  })
  it('leaves the sheet past its first and its last cell', () => {
    expect(actOfKey(pressed('Tab'), at({ columnAt: columns.length - 1 }))).toBeNull()
    expect(actOfKey(pressed('Shift+Tab'), at({ columnAt: 0 }))).toBeNull()
  })
  it.each([
    ['ArrowRight', true, { act: 'toggle' }],
    ['ArrowRight', false, { act: 'column', by: 1 }],
    ['ArrowLeft', false, { act: 'toggle' }],
    ['ArrowLeft', true, { act: 'column', by: -1 }],
  ])('%s on a module that is closed: %s', (keys, isClosed, act) => {
    const onModule = at({ row: rowOf('week'), columnAt: 0, isClosed })
    expect(actOfKey(pressed(keys), onModule)).toEqual(act)
  })
  it('empties a cell, but never a name or a kind, without which a part is none', () => {
    const backspace = (id: string) =>
      actOfKey(pressed('Backspace'), at({ column: columns.find((column) => column.id === id) }))
    expect(backspace('points')).toEqual({ act: 'empty-cell' })
    expect(backspace('name')).toBeNull()
    expect(backspace('kind')).toBeNull()
  })
  it('moves nothing that the template above decides', () => {
    const above = { ...rowOf('overview'), above: true }
    expect(actOfKey(pressed('Alt+ArrowUp'), at({ row: above }))).toBeNull()
  })
})
