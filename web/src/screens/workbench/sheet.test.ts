import { describe, expect, it } from 'vitest'
import {
  applyEdit,
  emptyTemplate,
  everyPart,
  newItem,
  newModule,
  readListed,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'
import { columns, type Column } from './columns.ts'
import { outlineRows, shownRows, type OutlineRow } from './outlineRows.ts'
import {
  addRow,
  clipRows,
  dropOn,
  listEdits,
  makeDifferent,
  moveBy,
  moveIn,
  moveOut,
  pasteRows,
  removeRows,
} from './sheetEdits.ts'

const template: Template = {
  ...emptyTemplate('small', 'Small'),
  grading: {
    ...emptyTemplate('small', 'Small').grading,
    categories: ['Log', 'Regatta'].map((name) => ({
      key: name.toLowerCase(),
      name,
      weight: 50,
      counts: true,
    })),
  },
  parts: [
    { ...newModule('start', 'Start'), items: [newItem('page', 'welcome', 'Welcome')] },
    {
      ...newModule('week', 'Week {week}'),
      repeat: { per: 'week', every: 1, except: [] },
      items: [
        newItem('page', 'overview', 'Week {week} overview'),
        { ...newItem('assignment', 'task', 'Task {number}'), settings: { points: 10 } },
      ],
      exceptions: [
        {
          key: 'first',
          anchor: { at: 'first' },
          omit: false,
          leaveOut: ['task'],
          set: [],
          add: [newItem('page', 'survey', 'Survey')],
        },
      ],
    },
  ],
}
const rows = outlineRows(template, null, null)
const row = (key: string, among: readonly OutlineRow[] = rows): OutlineRow => {
  const found = among.find((row) => row.key === key)
  if (!found) throw new Error(`there is no row ${key}`)
  return found
}
const after = (edits: readonly TemplateEdit[], from = template): Template =>
  edits.reduce((now, edit) => {
    const next = applyEdit(now, edit)
    if (!next.ok) throw new Error(JSON.stringify(next.problems))
    return next.value.template
  }, from)
const keysAfter = (edits: readonly TemplateEdit[]) =>
  outlineRows(after(edits), null, null).map(({ key }) => key)
const column = (id: Column['id']): Column => columns.find((column) => column.id === id) as Column
const typed = (id: Column['id'], key: string, text: string): Template | string => {
  const reading = column(id).read?.(row(key), text, template)
  return reading?.ok ? after(reading.edits) : (reading?.message ?? 'it cannot be edited')
}
const partAfter = (id: Column['id'], key: string, text: string) => {
  const now = typed(id, key, text)
  return typeof now === 'string' ? now : everyPart(now).find((part) => part.key === key)
}

describe('rows of the sheet', () => {
  it('are the home page with its elements, then every part, exceptions with what they add last in their module', () => {
    expect(rows.map((row) => [row.key, row.depth, row.row])).toEqual([
      ['home-page', 0, 'home'],
      ['home-page/course-title', 1, 'element'],
      ['start', 0, 'part'],
      ['welcome', 1, 'part'],
      ['week', 0, 'part'],
      ['overview', 1, 'part'],
      ['task', 1, 'part'],
      ['first', 1, 'exception'],
      ['survey', 2, 'part'],
    ])
  })
  it('say what comes from the layer above', () => {
    const layer = after([
      { edit: 'add-part', parent: 'week', at: 0, part: newItem('page', 'own', 'Own') },
    ])
    expect(
      outlineRows(layer, template, null)
        .filter(({ above }) => !above)
        .map(({ key }) => key),
    ).toEqual(['own'])
  })
  it('are found with what they stand in, and hidden under a closed row', () => {
    const none = { text: '', kind: '', strength: '' }
    const shown = (filter: object, closed: string[] = []) =>
      shownRows(rows, template, { ...none, ...filter }, new Set(closed)).map(({ key }) => key)
    expect(shown({ text: 'surv' })).toEqual(['week', 'first', 'survey'])
    expect(shown({ kind: 'assignment' })).toEqual(['week', 'task'])
    expect(shown({ strength: 'may' })).toEqual([])
    expect(shown({}, ['home-page', 'week'])).toEqual(['home-page', 'start', 'welcome', 'week'])
    expect(shown({ text: 'task' }, ['week'])).toEqual(['week', 'task'])
  })
})

describe('cells', () => {
  it('take what is typed into them', () => {
    expect(partAfter('strength', 'task', 'sh')).toMatchObject({ strength: 'should' })
    expect(partAfter('repeats', 'task', 'even weeks')).toMatchObject({
      repeat: { per: 'week', every: 2 },
    })
    expect(partAfter('due', 'task', 'day 3 of its week at 17:00')).toMatchObject({
      settings: { due: { from: 'week-start', days: 2, time: '17:00' } },
    })
    expect(partAfter('due', 'task', 'Sunday')).toMatchObject({
      settings: { due: { from: 'weekday', weekday: 'sunday', days: 0, time: '23:59' } },
    })
    expect(partAfter('points', 'task', '12,5')).toMatchObject({ settings: { points: 12.5 } })
    expect(partAfter('points', 'task', '')).toMatchObject({ settings: {} })
    expect(partAfter('category', 'task', 'lo')).toMatchObject({ settings: { category: 'Log' } })
    expect(partAfter('category', 'task', '')).toMatchObject({ settings: { points: 10 } })
    expect(partAfter('may', 'task', 'rename and edit')).toMatchObject({
      may: { rename: true, edit: true },
    })
    expect(partAfter('kind', 'task', 'discussion')).toMatchObject({ kind: 'discussion' })
    expect(partAfter('audience', 'task', 'staff')).toMatchObject({ audience: 'staff' })
    expect(partAfter('name', 'task', 'Task {week}')).toMatchObject({ name: 'Task {week}' })
  })
  it('tell what is wrong, and what could be written', () => {
    expect(partAfter('name', 'task', 'Task {wek}')).toMatch(/^At character 7: .*week/)
    expect(partAfter('repeats', 'task', 'sometimes')).toContain('each week')
    expect(partAfter('points', 'task', 'many')).toContain('a number')
    expect(partAfter('category', 'task', 'Knots')).toBe('one of Log, Regatta; or nothing')
    expect(partAfter('kind', 'task', 'asse')).toMatchObject({ kind: 'assessment' })
    expect(partAfter('kind', 'task', 'ass')).toContain('one of')
    expect(partAfter('strength', 'task', '')).toBe('must, should or may')
  })
  it('of an exception say which repetition it is, its name and strength', () => {
    const exceptionAfter = (id: Column['id'], text: string) => {
      const now = typed(id, 'first', text)
      const week = typeof now === 'string' ? null : now.parts[1]
      return week?.kind === 'module' ? week.exceptions[0] : now
    }
    expect(exceptionAfter('repeats', 'number 4')).toMatchObject({
      anchor: { at: 'number', number: 4 },
    })
    expect(exceptionAfter('name', 'Week {week}, the first')).toMatchObject({
      name: 'Week {week}, the first',
    })
    expect(exceptionAfter('strength', 'may')).toMatchObject({ strength: 'may' })
  })
})

describe('whole rows', () => {
  it('move up, down, into the module above and out of it', () => {
    expect(keysAfter(moveBy(row('task'), -1))).toEqual([
      'home-page',
      'home-page/course-title',
      'start',
      'welcome',
      'week',
      'task',
      'overview',
      'first',
      'survey',
    ])
    expect(moveBy(row('task'), 1)).toEqual([])
    expect(keysAfter(moveOut(row('welcome'), rows, template))).toEqual([
      'home-page',
      'home-page/course-title',
      'start',
      'welcome',
      'week',
      'overview',
      'task',
      'first',
      'survey',
    ])
    expect(moveOut(row('welcome'), rows, template)).toEqual([
      { edit: 'move-part', part: 'welcome', parent: null, at: 1 },
    ])
    expect(moveIn(row('week'), rows, template)).toEqual([
      { edit: 'move-part', part: 'week', parent: 'start', at: 2000 },
    ])
    expect(moveIn(row('start'), rows, template)).toEqual([])
  })
  it('read from a list go where a new row would; modules come after the whole module, and stand in none', () => {
    const put = (text: string, key?: string) =>
      keysAfter(listEdits(readListed(text).rows, key ? row(key) : undefined, template).edits)
    expect(put('Ropes\nKnots', 'welcome').slice(2, 7)).toEqual([
      'start',
      'welcome',
      'ropes',
      'knots',
      'week',
    ])
    expect(put('Sea\n  Wind', 'welcome').slice(2, 7)).toEqual([
      'start',
      'welcome',
      'sea',
      'wind',
      'week',
    ])
    expect(
      after(listEdits(readListed('Sea\n  Wind').rows, row('survey'), template).edits),
    ).toMatchObject({
      parts: [{ key: 'start' }, { key: 'week' }, { key: 'sea', items: [{ key: 'wind' }] }],
    })
    expect(put('Knots', 'start').slice(2, 6)).toEqual(['start', 'welcome', 'knots', 'week'])
    expect(put('Knots').at(-1)).toBe('knots')
    expect(listEdits(readListed('Welcome').rows, row('welcome'), template).first).toBe('welcome-2')
  })
  it('are added into an open module, an exception, or after the row', () => {
    const keys = (key: string, kind: 'page' | 'module') =>
      keysAfter(addRow(kind, row(key), template).edits)
    expect(keys('week', 'page')).toEqual([
      'home-page',
      'home-page/course-title',
      'start',
      'welcome',
      'week',
      'overview',
      'task',
      'page',
      'first',
      'survey',
    ])
    expect(keys('first', 'page').slice(-2)).toEqual(['survey', 'page'])
    expect(keys('welcome', 'page').slice(3, 5)).toEqual(['welcome', 'page'])
    expect(keys('home-page', 'module').at(-1)).toBe('module')
    expect(keys('home-page', 'page')[1]).toBe('home-page/passage')
  })
  it('are removed with what speaks of them, each once', () => {
    expect(after(removeRows([row('task')], template)).parts[1]).toMatchObject({
      exceptions: [{ leaveOut: [] }],
    })
    expect(
      keysAfter(removeRows([row('week'), row('task'), row('first'), row('survey')], template)),
    ).toEqual(['home-page', 'home-page/course-title', 'start', 'welcome'])
    expect(keysAfter(removeRows([row('first')], template)).includes('survey')).toBe(false)
    expect(removeRows([row('home-page')], template)).toEqual([])
  })
  it('are dropped before, after or into another, as it looks', () => {
    expect(keysAfter(dropOn(row('overview'), row('task'), 'after', template)).slice(5, 7)).toEqual([
      'task',
      'overview',
    ])
    expect(keysAfter(dropOn(row('task'), row('welcome'), 'before', template)).slice(3, 5)).toEqual([
      'task',
      'welcome',
    ])
    expect(keysAfter(dropOn(row('welcome'), row('week'), 'inside', template))).toEqual([
      'home-page',
      'home-page/course-title',
      'start',
      'week',
      'overview',
      'task',
      'welcome',
      'first',
      'survey',
    ])
    expect(keysAfter(dropOn(row('task'), row('first'), 'inside', template)).slice(-2)).toEqual([
      'survey',
      'task',
    ])
    expect(dropOn(row('task'), row('task'), 'after', template)).toEqual([])
    expect(dropOn(row('home-page/course-title'), row('task'), 'after', template)).toEqual([])
  })
  it('go through the clipboard; what is no clip is left alone', () => {
    const text = clipRows([row('week'), row('task')], template) ?? ''
    expect(pasteRows(text, row('start'), template)?.keys).toEqual(['week-2'])
    expect(pasteRows('a\tb\nc', row('start'), template)).toBe(null)
    expect(pasteRows('{"schema":"wickerframe.parts/1","parts":[]}', row('start'), template)).toBe(
      null,
    )
    expect(clipRows([row('home-page')], template)).toBe(null)
  })
  it('make one repetition different under a key of its own', () => {
    const made = makeDifferent('week', { at: 'number', number: 8 }, template)
    expect(made.key).toBe('week-8')
    expect(keysAfter(made.edits).at(-1)).toBe('week-8')
    expect(makeDifferent('week', { at: 'number', number: 8 }, after(made.edits)).key).toBe(
      'week-8-2',
    )
  })
})
