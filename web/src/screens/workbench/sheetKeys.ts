import type { Column } from './columns.ts'
import type { OutlineRow } from './outlineRows.ts'

/** What a key does in the outline sheet. */
export type SheetAct =
  | { act: 'undo' | 'redo' | 'fill-down' | 'choose-all' | 'choose-none' | 'remove' }
  | { act: 'add'; kind: 'page' | 'module' }
  | { act: 'move'; way: 'up' | 'down' | 'in' | 'out' }
  | { act: 'step'; by: number; extend: boolean }
  | { act: 'go'; row: 'first' | 'last' }
  | { act: 'column'; by: 1 | -1 }
  /** Opens or closes the row. */
  | { act: 'toggle' }
  /** Types into the cell; over what stands there when it begins with a letter. */
  | { act: 'type'; start?: string }
  | { act: 'open-slip' }
  | { act: 'empty-cell' }

export interface Key {
  key: string
  ctrlKey: boolean
  metaKey: boolean
  altKey: boolean
  shiftKey: boolean
}

/** Where the keys are pressed. */
export interface AtCell {
  row: OutlineRow
  column: Column | undefined
  /** Numbers of the column it stands in, from 0, and of all. */
  columnAt: number
  columnCount: number
  isClosed: boolean
  mayEdit: boolean
  /** Whether this very cell can be typed into. */
  mayType: boolean
  /** Whether several rows are chosen. */
  severalChosen: boolean
}

const pageOfRows = 15

const withControl = ({ key, shiftKey }: Key, { mayEdit }: AtCell): SheetAct | null => {
  switch (key.toLowerCase()) {
    case 'z':
      return { act: shiftKey ? 'redo' : 'undo' }
    case 'y':
      return { act: 'redo' }
    case 'd':
      return mayEdit ? { act: 'fill-down' } : null
    case 'a':
      return { act: 'choose-all' }
    case 'enter':
      return mayEdit ? { act: 'add', kind: shiftKey ? 'module' : 'page' } : null
    default:
      return null
  }
}

const ways = { ArrowUp: 'up', ArrowDown: 'down', ArrowRight: 'in', ArrowLeft: 'out' } as const
const isWay = (key: string): key is keyof typeof ways => Object.hasOwn(ways, key)

const withAlt = ({ key }: Key, { mayEdit, row }: AtCell): SheetAct | null =>
  mayEdit && !row.above && isWay(key) ? { act: 'move', way: ways[key] } : null

const stepsByKey: Readonly<Record<string, number>> = {
  ArrowDown: 1,
  ArrowUp: -1,
  PageDown: pageOfRows,
  PageUp: -pageOfRows,
}

/** Right opens and left closes what opens, in the first column; elsewhere both go to the next cell. */
const sideways = (by: 1 | -1, { columnAt, isClosed, row }: AtCell): SheetAct =>
  columnAt === 0 && row.opens && isClosed === (by === 1) ? { act: 'toggle' } : { act: 'column', by }

/** A part is never without its name and kind. */
const mayEmpty = ({ mayType, column }: AtCell): boolean =>
  mayType && column?.id !== 'name' && column?.id !== 'kind'

const alone = (pressed: Key, at: AtCell): SheetAct | null => {
  const { key, shiftKey } = pressed
  const by = stepsByKey[key]
  if (by !== undefined) return { act: 'step', by, extend: shiftKey }
  switch (key) {
    case 'Home':
      return { act: 'go', row: 'first' }
    case 'End':
      return { act: 'go', row: 'last' }
    case 'ArrowRight':
      return sideways(1, at)
    case 'ArrowLeft':
      return sideways(-1, at)
    case 'Tab': {
      // Past the last cell, the key leaves the sheet as everywhere.
      const next = at.columnAt + (shiftKey ? -1 : 1)
      return next < 0 || next >= at.columnCount ? null : { act: 'column', by: shiftKey ? -1 : 1 }
    }
    case 'Enter':
      return at.mayType ? { act: 'type' } : { act: 'open-slip' }
    case 'F2':
      return at.mayType ? { act: 'type' } : null
    case 'F4':
      return { act: 'open-slip' }
    case 'Delete':
      if (mayEmpty(at) && !at.severalChosen) return { act: 'empty-cell' }
      return at.mayEdit ? { act: 'remove' } : null
    case 'Backspace':
      return mayEmpty(at) ? { act: 'empty-cell' } : null
    case 'Escape':
      return { act: 'choose-none' }
    default:
      // `?` shows the keys and `/` finds, everywhere.
      return key.length === 1 && key !== '?' && key !== '/' && at.mayType
        ? { act: 'type', start: key }
        : null
  }
}

/** What a key does where it is pressed; null: nothing of the sheet's, so it does what it does everywhere. */
export const actOfKey = (pressed: Key, at: AtCell): SheetAct | null => {
  if (pressed.ctrlKey || pressed.metaKey) return withControl(pressed, at)
  if (pressed.altKey) return withAlt(pressed, at)
  return alone(pressed, at)
}
