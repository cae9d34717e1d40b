import {
  act,
  createEvent,
  fireEvent,
  render,
  screen,
  waitFor,
  within,
} from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { useState } from 'react'
import { describe, expect, it } from 'vitest'
import { emptyTemplate, everyPart, newItem, newModule, type Template } from '@wickerframe/core'
import { fileNamed, keptFile } from '../../testing/files.testing.ts'
import { openDraft } from '../../testing/keptDraft.testing.ts'
import { useDraftStore } from './draftStore.ts'
import { outlineRows, shownRows } from './outlineRows.ts'
import type { Listing } from './ListOfParts.tsx'
import { OutlineSheet } from './OutlineSheet.tsx'
import { headHeight, rowHeight } from './SheetRow.tsx'

const small = (key: string): Template => ({
  ...emptyTemplate(key, 'Small'),
  parts: [
    { ...newModule('start', 'Start'), items: [newItem('page', 'welcome', 'Welcome')] },
    {
      ...newModule('week', 'Week {week}'),
      items: [
        newItem('page', 'overview', 'Overview'),
        newItem('assignment', 'task', 'Task {number}'),
      ],
    },
  ],
})

const Sheet = ({
  onChoose,
  onList,
  slipOpen,
}: {
  onChoose: (key: string | null) => void
  onList: (listing: Listing) => void
  slipOpen: boolean
}) => {
  const { draft } = useDraftStore()
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set())
  if (!draft) return null
  const all = outlineRows(draft, null, null)
  return (
    <OutlineSheet
      rows={shownRows(all, draft, { text: '', kind: '', strength: '' }, closed)}
      all={all}
      template={draft}
      chosen={null}
      slipOpen={slipOpen}
      closed={closed}
      remarks={new Map()}
      onChoose={onChoose}
      onList={onList}
      onToggle={(key) => setClosed((before) => new Set(before.has(key) ? [] : [key]))}
    />
  )
}

let opened = 0
const open = (
  mayEdit = true,
  before: (draft: Template) => Template = (draft) => draft,
  slipOpen = false,
) => {
  const draft = small(`sheet-${++opened}`)
  const { onServer } = openDraft(draft, {
    mayEdit,
    present: before(draft),
    answers: { putFile: keptFile },
  })
  const chosen: (string | null)[] = []
  const lists: Listing[] = []
  render(
    <Sheet
      onChoose={(to) => chosen.push(to)}
      onList={(listing) => lists.push(listing)}
      slipOpen={slipOpen}
    />,
  )
  return { user: userEvent.setup(), chosen, lists, onServer }
}
const cell = (text: string): HTMLElement => {
  const found = screen
    .getAllByRole('gridcell')
    .find(
      ({ textContent }) => textContent.replace(/^[↕▸▾▶▼\s]+/u, '').replace(/row ▾$/, '') === text,
    )
  if (!found) throw new Error(`no cell ${text}`)
  return found
}
const goTo = (text: string) => act(() => cell(text).focus())
const click = (user: ReturnType<typeof userEvent.setup>, text: string) => user.click(cell(text))
const names = (template = useDraftStore.getState().draft): string[] =>
  everyPart(template ?? emptyTemplate('x', 'x')).map(({ name }) => name)
const paste = (text: string, parts = '') =>
  fireEvent.paste(document.activeElement ?? document.body, {
    clipboardData: { getData: (type: string) => (type === 'text/plain' ? text : parts) },
  })

describe('the outline sheet', () => {
  it('is a tree of rows that a screen reader counts', () => {
    open()
    const grid = screen.getByRole('treegrid', { name: 'Outline of the template' })
    const rows = within(grid).getAllByRole('row')
    expect(Number(grid.getAttribute('aria-rowcount'))).toBe(rows.length)
    expect(within(grid).getAllByRole('columnheader').length).toBe(
      Number(grid.getAttribute('aria-colcount')),
    )
    const reached = within(grid)
      .getAllByRole('gridcell')
      .filter(({ tabIndex }) => tabIndex === 0)
    expect(reached).toHaveLength(1)
  })
  it('is typed into like a table: a letter begins, Enter takes it and goes down', async () => {
    const { user, onServer } = open()
    await click(user, 'Welcome')
    await user.keyboard('Hello{Enter}')
    expect(names()).toContain('Hello')
    expect(names()).not.toContain('Welcome')
    await waitFor(() => expect(names(onServer())).toContain('Hello'))
  })
  it('shows how dates are written to whoever types a question mark where one belongs', async () => {
    const { user } = open()
    await click(user, 'Task {number}')
    // Named, in this course, strength, seen by, repeats, due.
    await user.keyboard('{ArrowRight}{ArrowRight}{ArrowRight}{ArrowRight}{ArrowRight}')
    await user.keyboard('{F2}?')
    expect(screen.getByText('next Monday')).toBeTruthy()
    await user.keyboard('{Backspace}soon')
    expect(screen.getByRole('alert').textContent).toMatch(/\? shows how dates are written/)
    await user.keyboard('{Escape}')
    expect(screen.queryByRole('alert')).toBeNull()
  })
  it('takes what was typed to its own row when another one is pressed, and goes there', async () => {
    const { user } = open()
    await click(user, 'Welcome')
    await user.keyboard('{F2} aboard')
    await click(user, 'Overview')
    expect(names()).toEqual(['Start', 'Welcome aboard', 'Week {week}', 'Overview', 'Task {number}'])
    expect(screen.queryByRole('textbox')).toBeNull()
    expect(document.activeElement).toBe(cell('Overview'))
  })
  it('stays with its row while somebody else puts rows above it: typing, and what is removed', async () => {
    const { user } = open()
    const putAbove = (key: string) =>
      act(() => {
        useDraftStore
          .getState()
          .edit({ edit: 'add-part', parent: null, at: 0, part: newModule(key, `New above ${key}`) })
      })
    await click(user, 'Welcome')
    await user.keyboard('{F2} aboard')
    putAbove('one')
    await user.keyboard('!{Enter}')
    expect(names()).toEqual([
      'New above one',
      'Start',
      'Welcome aboard!',
      'Week {week}',
      'Overview',
      'Task {number}',
    ])
    await click(user, 'Overview')
    putAbove('two')
    await user.keyboard('{Delete}')
    expect(names()).not.toContain('Overview')
    expect(names()).toHaveLength(6)
    await click(user, 'Start')
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}')
    putAbove('three')
    await user.keyboard('{Delete}')
    expect(names()).toEqual([
      'New above three',
      'New above two',
      'New above one',
      'Week {week}',
      'Task {number}',
    ])
  })
  it('keeps what was typed out of the draft when it is left by Escape', async () => {
    const { user } = open()
    await click(user, 'Welcome')
    await user.keyboard('{F2} and more{Escape}')
    expect(names()).toContain('Welcome')
    expect(document.activeElement?.getAttribute('role')).toBe('gridcell')
  })
  it('says beside the cell what is wrong, and takes no such name', async () => {
    const { user } = open()
    await click(user, 'Overview')
    await user.keyboard('{F2} {{week')
    expect(screen.getByRole('alert').textContent.length).toBeGreaterThan(10)
    await user.keyboard('{Enter}')
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: /^Named of/ }).value).toContain(
      '{week',
    )
    expect(names()).toContain('Overview')
  })
  it('adds a part below and begins its name; undo takes it away, redo brings it again', async () => {
    const { user } = open()
    const before = names()
    await click(user, 'Overview')
    await user.keyboard('{Control>}{Enter}{/Control}')
    await user.keyboard('{Escape}')
    expect(names()).toHaveLength(before.length + 1)
    await user.keyboard('{Control>}z{/Control}')
    expect(names()).toEqual(before)
    await user.keyboard('{Control>}y{/Control}')
    expect(names()).toHaveLength(before.length + 1)
  })
  it('is written like a list: name, Enter, name, Enter; Enter on none ends it, and the row that waited goes', async () => {
    const { user, onServer } = open()
    await click(user, 'Overview')
    await user.keyboard('{Control>}{Enter}{/Control}')
    const field = () => screen.getByRole<HTMLInputElement>('textbox', { name: /^Named of/ })
    // What stands there is marked: what is typed takes its place.
    expect([field().selectionStart, field().selectionEnd]).toEqual([0, field().value.length])
    await user.keyboard('Reading{Enter}')
    await user.keyboard('Film{Enter}')
    await user.keyboard('{Enter}')
    const listed = [
      'Start',
      'Welcome',
      'Week {week}',
      'Overview',
      'Reading',
      'Film',
      'Task {number}',
    ]
    expect(names()).toEqual(listed)
    expect(screen.queryByRole('textbox')).toBeNull()
    await waitFor(() => expect(names(onServer())).toEqual(listed))
    await user.keyboard('{Control>}z{/Control}{Control>}z{/Control}{Control>}z{/Control}')
    expect(names()).not.toContain('Film')
  })
  it('leaves no row that nobody named, where the list is left for another row, by Escape or for elsewhere', async () => {
    const { user } = open()
    const begin = async () => {
      await click(user, 'Overview')
      await user.keyboard('{Control>}{Enter}{/Control}Reading{Enter}')
      expect(names()).toHaveLength(7)
    }
    const listed = ['Start', 'Welcome', 'Week {week}', 'Overview', 'Reading', 'Task {number}']
    const back = () => act(() => useDraftStore.getState().undo())
    await begin()
    await click(user, 'Task {number}')
    expect(names()).toEqual(listed)
    expect(document.activeElement?.textContent).toContain('Task')
    const undo = () => [1, 2, 3, 4].forEach(back)
    undo()
    await begin()
    await user.keyboard('{Escape}')
    expect(names()).toEqual(listed)
    expect(document.activeElement?.textContent).toContain('Reading')
    undo()
    await begin()
    act(() => (document.activeElement as HTMLElement).blur())
    expect(names()).toEqual(listed)
  })
  it('makes the next of the same kind; Tab takes a new row deeper and Shift Tab out again, its name still typed', async () => {
    const { user } = open()
    await click(user, 'Week {week}')
    await user.keyboard('{Control>}{Shift>}{Enter}{/Shift}{/Control}')
    await user.keyboard('Lab{Enter}')
    await user.keyboard('Field days{Tab}')
    const lab = () => useDraftStore.getState().draft?.parts.find(({ name }) => name === 'Lab')
    expect(lab()).toMatchObject({ kind: 'module', items: [{ kind: 'module', name: 'Field days' }] })
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: /^Named of/ }).value).toBe(
      'Field days',
    )
    await user.keyboard('{Shift>}{Tab}{/Shift}')
    expect(lab()).toMatchObject({ items: [] })
    await user.keyboard('{Enter}{Enter}')
    expect(useDraftStore.getState().draft?.parts.map(({ name }) => name)).toEqual([
      'Start',
      'Week {week}',
      'Lab',
      'Field days',
    ])
  })
  it('has Tab go to the next cell where nothing is deeper', async () => {
    const { user } = open()
    await click(user, 'Overview')
    await user.keyboard('{Control>}{Enter}{/Control}')
    await user.keyboard('Reading{Tab}')
    expect(screen.queryByRole('textbox')).toBeNull()
    expect(names()).toContain('Reading')
    expect(document.activeElement?.getAttribute('data-cell')).toMatch(/-2$/)
  })
  it('has Delete empty a cell; on a name it removes the row, says so, and takes it back', async () => {
    const { user } = open()
    const before = names()
    await click(user, 'Week {week}')
    await user.keyboard('{ArrowRight}{ArrowRight}{Delete}')
    expect(names()).toEqual(before)
    await click(user, 'Week {week}')
    await user.keyboard('{Delete}')
    expect(names()).toEqual(['Start', 'Welcome'])
    const told = screen.getByText(/^Removed “Week {week}” with 2 parts in it\./)
    await user.click(within(told).getByRole('button', { name: 'undo' }))
    expect(names()).toEqual(before)
    expect(screen.queryByText(/^Removed/)).toBeNull()
    // Once something else was done, that press would take back something else.
    await click(user, 'Overview')
    await user.keyboard('{Delete}')
    expect(screen.getByText(/^Removed “Overview”\./)).toBeTruthy()
    await click(user, 'Welcome')
    await user.keyboard('Hello{Enter}')
    expect(screen.queryByText(/^Removed/)).toBeNull()
  })
  it('moves a part among the others, and into the next module and out of it', async () => {
    const { user } = open()
    await click(user, 'Task {number}')
    await user.keyboard('{Alt>}{ArrowUp}{/Alt}')
    expect(names()).toEqual(['Start', 'Welcome', 'Week {week}', 'Task {number}', 'Overview'])
    await user.keyboard('{Alt>}{ArrowLeft}{/Alt}')
    const { draft } = useDraftStore.getState()
    expect(draft?.parts.map(({ name }) => name)).toContain('Task {number}')
  })
  it('has a menu on the row one stands in that does what the keys do, for mouse and touch', async () => {
    const { user, chosen } = open()
    const choose = async (row: string, act: RegExp) => {
      await click(user, row)
      await user.click(screen.getByRole('button', { name: /what can be done/ }))
      await user.click(await screen.findByRole('menuitem', { name: act }))
    }
    await choose('Task {number}', /^move the row up/)
    await waitFor(() =>
      expect(names()).toEqual(['Start', 'Welcome', 'Week {week}', 'Task {number}', 'Overview']),
    )
    await choose('Welcome', /^edit the cell/)
    const field = await screen.findByRole<HTMLInputElement>('textbox')
    await waitFor(() => expect(document.activeElement).toBe(field))
    await user.keyboard(' aboard{Enter}')
    expect(names()).toContain('Welcome aboard')
    await choose('Overview', /^open the row’s slip/)
    await waitFor(() => expect(chosen).toEqual([expect.any(String)]))
    await choose('Overview', /^remove the row/)
    await waitFor(() => expect(names()).not.toContain('Overview'))
  })
  it('takes away what is chosen, several at once, in one step of undo', async () => {
    const { user } = open()
    const before = names()
    await click(user, 'Overview')
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}{Delete}')
    expect(names()).toEqual(['Start', 'Welcome', 'Week {week}'])
    await user.keyboard('{Control>}z{/Control}')
    expect(names()).toEqual(before)
  })
  it('takes cells of a spreadsheet in, row by row, and leaves what it cannot read', async () => {
    const { user, lists } = open()
    await click(user, 'Overview')
    paste('Read this first\nDo this then\n')
    // Upon names it may be meant for new rows: it is asked, and nothing is written before.
    expect(names().slice(-2)).toEqual(['Overview', 'Task {number}'])
    act(() => lists[0]?.intoCells?.())
    expect(names().slice(-2)).toEqual(['Read this first', 'Do this then'])
    await user.keyboard('{Control>}z{/Control}')
    expect(names().slice(-2)).toEqual(['Overview', 'Task {number}'])
  })
  it('sets the same in several rows with one press, and takes it back with one', async () => {
    const { user } = open()
    const said = (field: 'strength' | 'points' | 'due') =>
      everyPart(useDraftStore.getState().draft ?? emptyTemplate('x', 'x'))
        .slice(-2)
        .map((part) => (field === 'strength' ? part.strength : part.settings[field]))
    expect(screen.queryByRole('group', { name: 'The rows that are chosen' })).toBeNull()
    await click(user, 'Overview')
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}')
    const many = within(screen.getByRole('group', { name: 'The rows that are chosen' }))
    expect(many.getByText('2 rows chosen')).toBeTruthy()
    await user.selectOptions(many.getByLabelText('Strength of 2 rows'), 'should')
    expect(said('strength')).toEqual(['should', 'should'])
    await user.type(many.getByLabelText('Points of 2 rows'), '12{Enter}')
    expect(said('points')).toEqual([12, 12])
    await user.type(many.getByLabelText('Due of 2 rows'), 'soon{Enter}')
    expect(many.getByRole('alert').textContent).toMatch(/“soon” was not understood/)
    expect(many.getByLabelText<HTMLInputElement>('Due of 2 rows').value).toBe('soon')
    expect(said('due')).toEqual([undefined, undefined])
    act(() => useDraftStore.getState().undo())
    expect([said('points'), said('strength')]).toEqual([
      [undefined, undefined],
      ['should', 'should'],
    ])
    await user.click(many.getByRole('button', { name: 'choose none' }))
    expect(screen.queryByRole('group', { name: 'The rows that are chosen' })).toBeNull()
    expect(document.activeElement).toBe(cell('Task {number}'))
  })
  it('says that several rows differ, and leaves those alone that have no such thing', async () => {
    const { user } = open()
    await click(user, 'Week {week}')
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}')
    act(() => {
      useDraftStore
        .getState()
        .edit({
          edit: 'set-field',
          part: 'overview',
          field: ['strength'],
          was: 'must',
          value: 'may',
        })
    })
    const many = within(screen.getByRole('group', { name: 'The rows that are chosen' }))
    expect(
      many.getByLabelText<HTMLSelectElement>('Strength of 2 rows').selectedOptions[0]?.text,
    ).toBe('differ')
    // A module is not worth points: only the page in it can be.
    await user.type(many.getByLabelText('Points of 1 row'), '5{Enter}')
    const parts = everyPart(useDraftStore.getState().draft ?? emptyTemplate('x', 'x'))
    expect(parts.map(({ settings }) => settings.points)).toEqual([
      undefined,
      undefined,
      undefined,
      5,
      undefined,
    ])
  })
  it('has every column at hand while a slip is open', () => {
    open(true, undefined, true)
    expect(screen.getAllByRole('columnheader').map(({ textContent }) => textContent)).toContain(
      'Instructors may',
    )
  })
  it('asks nothing where cells are pasted upon others than names', async () => {
    const { user, lists } = open()
    await click(user, 'Overview')
    await user.keyboard('{ArrowRight}{ArrowRight}')
    paste('should\nmay\n')
    expect(lists).toEqual([])
    const strengths = everyPart(useDraftStore.getState().draft ?? emptyTemplate('x', 'x'))
    expect(strengths.slice(-2).map(({ strength }) => strength)).toEqual(['should', 'may'])
  })
  it('closes and opens a module with the arrows, in its first column', async () => {
    const { user } = open()
    await click(user, 'Week {week}')
    await user.keyboard('{ArrowLeft}')
    await user.keyboard('{ArrowLeft}')
    expect(screen.queryByText('Overview')).toBeNull()
    await user.keyboard('{ArrowRight}')
    expect(screen.getByText('Overview')).toBeTruthy()
  })
  it('opens the slip where nothing can be typed', async () => {
    const { user, chosen } = open(false)
    await click(user, 'Overview')
    await user.keyboard('{Enter}')
    expect(chosen).toEqual(['overview'])
  })
  it('edits nothing for somebody who may only read', async () => {
    const { user } = open(false)
    const before = names()
    goTo('Overview')
    await user.keyboard('x{Delete}{Control>}{Enter}{/Control}{Alt>}{ArrowUp}{/Alt}')
    paste('Other')
    expect(names()).toEqual(before)
    expect(screen.queryByRole('textbox')).toBeNull()
  })
  it('puts a clash with somebody else to whoever typed, and loses neither word', async () => {
    const renamed = (draft: Template): Template => {
      const next = structuredClone(draft)
      const [start] = next.parts
      if (start && 'items' in start) for (const item of start.items) item.name = 'Theirs'
      return next
    }
    const { user, onServer } = open(true, renamed)
    await click(user, 'Welcome')
    await user.keyboard('Mine{Enter}')
    await waitFor(() => expect(useDraftStore.getState().clashes).toHaveLength(1))
    const [clash] = useDraftStore.getState().clashes
    expect(JSON.stringify(clash)).toContain('Mine')
    expect(JSON.stringify(clash)).toContain('Theirs')
    if (clash) act(() => useDraftStore.getState().decide(clash, 'mine'))
    await waitFor(() => expect(names(onServer())).toContain('Mine'))
  })
})

describe('files dropped on the outline', () => {
  /** Upon the row of the first module. */
  const drop = (...names: string[]) => {
    const rows = screen.getAllByRole('row')
    const at = rows.findIndex((row) => row.textContent?.includes('Start'))
    const event = createEvent.drop(rows[at] as HTMLElement, {
      dataTransfer: { files: names.map((name) => fileNamed(name)), types: ['Files'] },
    })
    Object.defineProperty(event, 'clientY', { value: headHeight + (at - 0.5) * rowHeight })
    fireEvent(rows[at] as HTMLElement, event)
  }
  it('become parts that hand them out, in the module they were dropped on, as one step of undo; others are told by name', async () => {
    const { onServer } = open()
    drop('syllabus_form.docx', 'page.html', 'bad.pdf', 'map {of} the quay.pdf')
    await screen.findByText('2 files became parts.')
    screen.getByText(/“page.html” is none that may be put in/)
    screen.getByText(/“bad.pdf” was not put in/)
    await waitFor(() => expect(onServer().files).toHaveLength(2))
    const files = everyPart(onServer()).filter(({ kind }) => kind === 'file')
    expect(files.map(({ name }) => name)).toEqual(['syllabus form', 'map \\{of\\} the quay'])
    const [start] = onServer().parts
    expect(start?.kind === 'module' && start.items.map(({ kind }) => kind)).toEqual([
      'page',
      'file',
      'file',
    ])
    act(() => useDraftStore.getState().undo())
    await waitFor(() => expect(onServer().files).toEqual([]))
    expect(everyPart(onServer()).filter(({ kind }) => kind === 'file')).toEqual([])
  })
  it('are not taken where one only reads', () => {
    const { onServer } = open(false)
    drop('map.pdf')
    expect(onServer().files).toEqual([])
    expect(screen.queryByText(/being brought in/)).toBeNull()
  })
})
