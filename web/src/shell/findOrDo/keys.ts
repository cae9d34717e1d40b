/** Where a key does something: everywhere, in the outline sheet, on a page written at full width, or on a question of an assessment. */
export type KeyPlace = 'everywhere' | 'sheet' | 'page' | 'question'

/** A key as it is pressed. */
export interface Press {
  key: string
  ctrl?: true
  alt?: true
  shift?: true
}

export interface KeyAct {
  place: KeyPlace
  keys: string
  does: string
  /** Whether it changes something: it is not to be had where one may only read. */
  edits: boolean
  /** Whether it is about the row one stands in, and stands in its menu. */
  ofRow: boolean
  /** What is pressed in its place when it is chosen by name; null: it can only be pressed by hand. */
  press: Press | null
}

export const placeWords: Readonly<Record<KeyPlace, string>> = {
  everywhere: 'Everywhere',
  sheet: 'In the outline sheet',
  page: 'On a page',
  question: 'On a question',
}
/** What stands around whatever a key of the place is pressed on. */
export const placeSelector: Readonly<Record<Exclude<KeyPlace, 'everywhere'>, string>> = {
  sheet: '[role="treegrid"]',
  page: '[data-block] > .page-paper > [role="group"]',
  question: '[data-question]',
}

const by =
  (place: KeyPlace) =>
  (keys: string, does: string, press: Press | null = null, more: Partial<KeyAct> = {}): KeyAct => ({
    place,
    keys,
    does,
    press,
    edits: true,
    ofRow: false,
    ...more,
  })
const everywhere = by('everywhere')
const sheet = by('sheet')
const row = (keys: string, does: string, press: Press, more: Partial<KeyAct> = {}): KeyAct =>
  sheet(keys, does, press, { ofRow: true, ...more })
const page = by('page')
const question = by('question')

/** Every key that does something of ours. */
export const keyActs: readonly KeyAct[] = [
  everywhere('/ or ?', 'find or do'),
  sheet('arrows, Page ↑ ↓, Home, End', 'go from cell to cell'),
  row('Enter, F2 or typing', 'edit the cell; Enter, Tab or Esc to finish', { key: 'F2' }),
  sheet('← → in the first cell', 'close or open what stands under the row'),
  row('F4', 'open the row’s slip', { key: 'F4' }, { edits: false }),
  row('Ctrl Enter', 'a new row', { key: 'Enter', ctrl: true }),
  row('Ctrl Shift Enter', 'a new module', { key: 'Enter', ctrl: true, shift: true }),
  sheet('Enter, Tab in a new row’s name', 'the next new row; deeper, with Shift out again'),
  row('Alt ↑', 'move the row up', { key: 'ArrowUp', alt: true }),
  row('Alt ↓', 'move the row down', { key: 'ArrowDown', alt: true }),
  row('Alt →', 'move the row into the module above', { key: 'ArrowRight', alt: true }),
  row('Alt ←', 'move the row out of its module', { key: 'ArrowLeft', alt: true }),
  sheet('Shift ↑ ↓', 'select rows'),
  sheet('Ctrl A', 'select all rows', { key: 'a', ctrl: true }, { edits: false }),
  sheet('Ctrl D', 'fill the topmost selected cell down', { key: 'd', ctrl: true }),
  sheet('Ctrl C, X, V', 'copy, cut and paste rows, between templates too'),
  sheet('Delete', 'empty the cell; on a name, or several rows, remove them', { key: 'Delete' }),
  row('Delete on the name', 'remove the row', { key: 'Delete' }),
  sheet('Ctrl Z', 'undo', { key: 'z', ctrl: true }),
  sheet('Ctrl Y', 'redo', { key: 'y', ctrl: true }),
  page('arrows, Home, End', 'go from block to block, and from text to text'),
  page('Enter, Esc', 'write in the block; look at it as a whole', { key: 'Enter' }),
  page('Ctrl Enter', 'a new text under the block; in a text: it becomes two', {
    key: 'Enter',
    ctrl: true,
  }),
  page('Backspace at the start', 'a text and the one above it become one'),
  page('Ctrl D', 'the block once more', { key: 'd', ctrl: true }),
  page('Alt ↑', 'move the block up', { key: 'ArrowUp', alt: true }),
  page('Alt ↓', 'move the block down', { key: 'ArrowDown', alt: true }),
  page('Delete', 'remove the block', { key: 'Delete' }),
  page('Ctrl Z', 'undo', { key: 'z', ctrl: true }),
  page('Ctrl Y', 'redo', { key: 'y', ctrl: true }),
  question('Enter, Esc', 'write in the question; look at it as a whole', { key: 'Enter' }),
  question('Tab in what is asked', 'to the first answer, and back with Shift'),
  question('Enter, Backspace in an answer', 'the next answer; an empty one goes'),
  question('* before an answer, or Alt R', 'it is right'),
  question('Ctrl Enter', 'a new question of the same kind after it', { key: 'Enter', ctrl: true }),
  question('Alt ↑', 'move the question up', { key: 'ArrowUp', alt: true }),
  question('Alt ↓', 'move the question down', { key: 'ArrowDown', alt: true }),
  question('Delete', 'take the question out', { key: 'Delete' }),
  question('Ctrl Z', 'undo', { key: 'z', ctrl: true }),
  question('Ctrl Y', 'redo', { key: 'y', ctrl: true }),
]

/** Presses a key on what has the focus, as a hand would. */
export const pressOn = (element: HTMLElement, { key, ctrl, alt, shift }: Press): void => {
  element.focus()
  element.dispatchEvent(
    new KeyboardEvent('keydown', {
      key,
      ctrlKey: ctrl === true,
      altKey: alt === true,
      shiftKey: shift === true,
      bubbles: true,
      cancelable: true,
    }),
  )
}
