import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { afterEach, describe, expect, it } from 'vitest'
import type { LibraryEntry } from '@wickerframe/contract'
import { expandCourse, everyExpected, newBlock, type Block, type Remark } from '@wickerframe/core'
import { exampleFacts, exampleTemplate } from '@wickerframe/core/testing'
import { fileNamed, keptFile } from '../../../testing/files.testing.ts'
import { openDraft } from '../../../testing/keptDraft.testing.ts'
import { useDraftStore } from '../draftStore.ts'
import { blocksOfPage } from './blockActs.ts'
import { byKey } from './fromAbove.ts'
import { offeredTo } from './fromLibrary.ts'
import { WrittenPage } from './WrittenPage.tsx'

const part = 'welcome'
/** What the library holds. */
const library: LibraryEntry[] = []
const Page = ({ above, remarks }: { above: readonly string[]; remarks: readonly Remark[] }) => {
  const { draft, edit } = useDraftStore()
  if (!draft) return null
  const worked = expandCourse({ template: draft, facts: exampleFacts() })
  const expected = worked.ok
    ? (everyExpected(worked.value.parts).find(({ key }) => key === part) ?? null)
    : null
  return (
    <WrittenPage
      part={part}
      blocks={blocksOfPage(draft, part)}
      expected={expected}
      course="NAV 110"
      template={draft}
      sources={{
        parts: [],
        assets: draft.assets,
        library: offeredTo(draft, library),
        onAsset: (asset) =>
          void edit({
            edit: 'set-field',
            part: null,
            field: ['assets', asset.key],
            was: null,
            value: asset,
          }),
      }}
      above={byKey(blocksOfPage(draft, part).filter(({ key }) => above.includes(key)))}
      remarks={remarks}
      today="2026-09-16"
    />
  )
}
const text = (key: string, html: string): Block => ({
  kind: 'fixed-text',
  strength: 'must',
  key,
  html,
})
const three = [
  text('a', '<p>Alpha in week {week}</p>'),
  text('b', '<p>Bravo</p>'),
  { ...newBlock('fill-in', 'c', exampleTemplate()), prompt: 'Charlie?' } as Block,
]
let opened = 0
const open = (
  blocks: readonly Block[] = three,
  {
    mayEdit = true,
    above = [] as string[],
    remarks = [] as Remark[],
    bare = false,
  }: { mayEdit?: boolean; above?: string[]; remarks?: Remark[]; bare?: boolean } = {},
) => {
  const draft = structuredClone(exampleTemplate())
  const of = blocksOfPage(draft, part) as Block[]
  of.splice(0, of.length, ...blocks)
  // With nothing to show of its own.
  if (bare) Object.assign(draft, { houseTexts: [], assets: [] })
  const { onServer } = openDraft(
    { ...draft, key: `written-${++opened}` },
    { mayEdit, answers: { putFile: keptFile } },
  )
  render(<Page above={above} remarks={remarks} />)
  const now = () => {
    const { draft } = useDraftStore.getState()
    return draft ? blocksOfPage(draft, part) : []
  }
  return { user: userEvent.setup(), blocks: now, keys: () => now().map(({ key }) => key), onServer }
}
const row = (key: string) => {
  const found = document.querySelector<HTMLElement>(`[data-block="${key}"]`)
  if (!found) throw new Error(`no block ${key} is shown`)
  return found
}
const frame = (key: string): HTMLElement => {
  const found = row(key).querySelector<HTMLElement>('[role="group"]')
  if (!found) throw new Error(`the block ${key} has no frame`)
  return found
}
const drop = (key: string, ...files: File[]) =>
  fireEvent.drop(row(key), { dataTransfer: { files, types: ['Files'] } })
const editor = () => screen.findByRole('textbox', { name: 'Fixed text' })

describe('a page at full width', () => {
  it('shows its blocks as they are designed, what is asked for apart, and what only a course can say as it is there', () => {
    open([...three, { ...newBlock('contact-card', 'd', exampleTemplate()) } as Block])
    expect(frame('a').textContent).toBe('Alpha in week {week}')
    expect(frame('a').querySelector('.text-tide')?.textContent).toBe('{week}')
    expect(frame('c').className).toContain('page-asked')
    expect(row('c').textContent).toContain('asked of the instructor')
    expect(row('d').textContent).toContain('made from NAV 110')
    expect(frame('d').textContent).toContain(exampleFacts().instructors[0]?.name)
  })
  it('has one stop for Tab, walked by arrows to its ends', async () => {
    const { user } = open()
    const stops = () => ['a', 'b', 'c'].map((key) => frame(key).tabIndex)
    expect(stops()).toEqual([0, -1, -1])
    act(() => frame('a').focus())
    await user.keyboard('{ArrowDown}')
    expect(document.activeElement).toBe(frame('b'))
    expect(stops()).toEqual([-1, 0, -1])
    await user.keyboard('{End}{ArrowDown}')
    expect(document.activeElement).toBe(frame('c'))
    await user.keyboard('{Home}{ArrowUp}')
    expect(document.activeElement).toBe(frame('a'))
  })
  it('is written in with Enter and left with Escape, to where it was', async () => {
    const { user, blocks } = open()
    act(() => frame('b').focus())
    await user.keyboard('{Enter}')
    const field = await editor()
    expect(field.textContent).toBe('Bravo')
    fireEvent.keyDown(field, { key: 'Escape' })
    await waitFor(() => expect(document.activeElement).toBe(frame('b')))
    expect(screen.queryByRole('textbox')).toBeNull()
    expect(blocks()).toEqual(three)
  })
  it('opens what is no text as its form, the first field at hand, and is left by Done or Escape', async () => {
    const { user, blocks } = open()
    act(() => frame('c').focus())
    await user.keyboard('{Enter}')
    expect(document.activeElement).toBe(screen.getByLabelText('Heading above it'))
    const prompt = screen.getByLabelText(/^Prompt/)
    await user.clear(prompt)
    await user.type(prompt, 'Who are you?')
    await user.click(screen.getByRole('button', { name: 'Done' }))
    expect(blocks()[2]).toMatchObject({ prompt: 'Who are you?' })
    expect(document.activeElement).toBe(frame('c'))
    await user.keyboard('{Enter}')
    await user.keyboard('{Escape}')
    expect(document.activeElement).toBe(frame('c'))
  })
  it('moves, duplicates, removes and puts in by keys; what is removed is said, and taken back', async () => {
    const { user, keys, blocks } = open()
    act(() => frame('b').focus())
    await user.keyboard('{Alt>}{ArrowUp}{/Alt}')
    expect(keys()).toEqual(['b', 'a', 'c'])
    expect(document.activeElement).toBe(frame('b'))
    await user.keyboard('{Control>}d{/Control}')
    expect(keys()).toEqual(['b', 'b-2', 'a', 'c'])
    expect(document.activeElement).toBe(frame('b-2'))
    await user.keyboard('{Delete}')
    expect(keys()).toEqual(['b', 'a', 'c'])
    expect(screen.getByText(/^Removed fixed text “Bravo”/)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'undo' }))
    expect(keys()).toEqual(['b', 'b-2', 'a', 'c'])
    act(() => frame('a').focus())
    await user.keyboard('{Control>}{Enter}{/Control}')
    await editor()
    expect(keys()).toEqual(['b', 'b-2', 'a', 'fixed-text', 'c'])
    expect(blocks()[3]?.kind).toBe('fixed-text')
  })
  it('puts in after what was looked at last, else at the end', async () => {
    const { user, keys } = open()
    const bar = within(screen.getByRole('toolbar', { name: 'Put in' }))
    await user.click(bar.getByRole('button', { name: 'title' }))
    expect(keys()).toEqual(['a', 'b', 'c', 'title'])
    act(() => frame('b').focus())
    await user.keyboard('{ArrowUp}')
    await user.click(bar.getByRole('button', { name: 'guidance note' }))
    expect(keys()).toEqual(['a', 'guidance-note', 'b', 'c', 'title'])
  })
  it('lets a layer change nothing from above but what is asked of it', async () => {
    const { user, blocks } = open(three, { above: ['a', 'c'] })
    act(() => frame('a').focus())
    await user.keyboard('{Enter}{Delete}{Alt>}{ArrowDown}{/Alt}{Control>}d{/Control}')
    expect(screen.queryByRole('textbox')).toBeNull()
    expect(blocks()).toEqual(three)
    await user.keyboard('{End}{Enter}')
    expect(screen.getByLabelText(/^Prompt/)).toBeTruthy()
  })
  it('leaves a block to the instructor where it stands, with a hint and an example, and says so beside it', async () => {
    const list = { ...newBlock('checklist', 'd', exampleTemplate()) } as Block
    const { user, blocks } = open([...three, list])
    act(() => frame('d').focus())
    await user.keyboard('{ArrowUp}{ArrowDown}')
    const left = screen.getByRole('combobox', { name: /left to the instructor/ })
    expect([...left.querySelectorAll('option')].map(({ textContent }) => textContent)).toEqual([
      'stands as written',
      'may be reworded',
      'is asked for',
    ])
    await user.selectOptions(left, 'proposed')
    expect(row('d').textContent).toContain('the instructor may reword it')
    await user.selectOptions(left, 'asked')
    expect(frame('d').className).toContain('page-asked')
    act(() => frame('d').focus())
    await user.keyboard('{Enter}')
    const hint = screen.getByLabelText(/^Hint/)
    await user.type(hint, 'Three things at most')
    await user.click(screen.getByRole('button', { name: 'Done' }))
    expect(blocks()[3]).toMatchObject({ left: { as: 'asked', hint: 'Three things at most' } })
  })
  it('gives a card of people its first lines when it begins to ask', async () => {
    const { user, blocks } = open([newBlock('contact-card', 'd', exampleTemplate()) as Block])
    await user.click(frame('d'))
    await user.selectOptions(
      screen.getByRole('combobox', { name: /left to the instructor/ }),
      'asked',
    )
    expect(blocks()[0]).toMatchObject({
      left: { as: 'asked' },
      lines: ['When and where students find you', 'How soon you answer'],
    })
    expect(useDraftStore.getState().undo()).toBeUndefined()
    expect(blocks()[0]).not.toHaveProperty('lines')
  })
  it('takes a spot to fill in into a sentence, what it says chosen', async () => {
    const { user, blocks } = open()
    act(() => frame('b').focus())
    await user.keyboard('{Enter}')
    const field = await editor()
    await user.click(await screen.findByRole('button', { name: 'spot to fill in' }))
    expect(field.querySelector('.page-spot')?.textContent).toBe('[[what belongs here]]')
    fireEvent.keyDown(field, { key: 'Escape' })
    await waitFor(() => expect(blocks()[1]).toMatchObject({ kind: 'fixed-text' }))
    expect(JSON.stringify(blocks()[1])).toContain('[[what belongs here]]')
    await user.keyboard('{Enter}')
    await user.click(await screen.findByRole('button', { name: 'note in the sentence' }))
    fireEvent.keyDown(await editor(), { key: 'Escape' })
    await waitFor(() =>
      expect(JSON.stringify(blocks()[1])).toContain('[[note: advice to the instructor]]'),
    )
  })
  it('speaks to its reader by name, with what is chosen for where no name is shown', async () => {
    const { user, blocks } = open()
    act(() => frame('b').focus())
    await user.keyboard('{Enter}')
    const field = await editor()
    await user.click(await screen.findByRole('button', { name: 'reader’s name' }))
    expect(field.textContent).toContain('{reader, everybody}')
    fireEvent.keyDown(field, { key: 'Escape' })
    await waitFor(() => expect(JSON.stringify(blocks()[1])).toContain('{reader, everybody}'))
  })
  it('lets a layer word what the layer above leaves to the instructor, and move or remove none of it', async () => {
    const proposal = {
      ...newBlock('checklist', 'd', exampleTemplate()),
      left: { as: 'proposed' },
    } as Block
    const { user, blocks } = open([...three, proposal], { above: ['a', 'd'] })
    act(() => frame('d').focus())
    await user.keyboard('{Delete}{Enter}')
    const lines = screen.getByLabelText(/One line for each/)
    await user.clear(lines)
    await user.type(lines, 'A lamp')
    await user.click(screen.getByRole('button', { name: 'Done' }))
    expect(blocks()[3]).toMatchObject({ lines: ['A lamp'] })
    expect(screen.queryByRole('button', { name: 'remove' })).toBeNull()
  })
  it('can be read, and not changed, by somebody who may not', async () => {
    const { user, blocks } = open(three, { mayEdit: false })
    await user.click(frame('b'))
    act(() => frame('b').focus())
    await user.keyboard('{Enter}{Delete}{Alt>}{ArrowUp}{/Alt}{Control>}d{Enter}{/Control}')
    expect(blocks()).toEqual(three)
    expect(screen.queryByRole('toolbar')).toBeNull()
    expect(screen.queryByRole('button')).toBeNull()
  })
  it('says beside a block what proofreading says of it', () => {
    open(three, {
      remarks: [
        { check: 'x', severity: 'warning', part, block: 'b', message: 'Bravo leads nowhere.' },
      ],
    })
    expect(row('b').textContent).toContain('Bravo leads nowhere.')
    expect(row('a').textContent).not.toContain('nowhere')
  })
  it('that is empty says what to do', () => {
    open([])
    expect(screen.getByText(/The page is empty/)).toBeTruthy()
  })
})

describe('a picture that is dropped on a page', () => {
  const drawing = (name: string, id: string) =>
    new File([`<svg xmlns="http://www.w3.org/2000/svg" id="${id}"/>`], name, {
      type: 'image/svg+xml',
    })
  it('is asked what it shows, kept with the template, and stands where it was dropped', async () => {
    const { user, keys, blocks, onServer } = open()
    drop('a', drawing('quay.svg', '1'), drawing('quay.svg', '2'))
    const words = await screen.findByLabelText(/What does this picture show/)
    expect(document.activeElement).toBe(words)
    await user.keyboard('{Enter}')
    expect(keys()).toEqual(['a', 'b', 'c'])
    await user.type(words, 'The quay{Enter}')
    await user.type(await screen.findByLabelText(/What does the picture show/), 'The quay again')
    await user.click(screen.getByRole('button', { name: 'Put picture in' }))
    expect(keys()).toEqual(['a', 'picture', 'picture-2', 'b', 'c'])
    expect(blocks().slice(1, 3)).toMatchObject([
      { html: '<img src="asset:quay.svg" alt="The quay">' },
      { html: '<img src="asset:quay-2.svg" alt="The quay again">' },
    ])
    await waitFor(() =>
      expect(onServer().assets.map(({ fileName, licence }) => [fileName, licence])).toEqual([
        ['quay.svg', 'our own'],
        ['quay-2.svg', 'our own'],
      ]),
    )
  })
  it('waits behind those that were dropped before, which lose nothing of what is said of them', async () => {
    const { user, keys } = open()
    drop('a', drawing('quay.svg', '1'))
    await user.type(await screen.findByLabelText(/What does the picture show/), 'The quay')
    drop('b', drawing('light.svg', '2'))
    const words = await screen.findByLabelText<HTMLInputElement>(/1 more after it/)
    expect(words.value).toBe('The quay')
    await user.click(screen.getByRole('button', { name: 'Put picture in' }))
    await user.type(await screen.findByLabelText(/What does the picture show/), 'The light{Enter}')
    expect(keys()).toEqual(['a', 'picture', 'picture-2', 'b', 'c'])
  })
  it('is left out when nobody says what it shows, and nothing stays of it', async () => {
    const { user, keys } = open()
    drop('a', drawing('quay.svg', '1'))
    await user.click(await screen.findByRole('button', { name: 'leave it out' }))
    expect(screen.queryByLabelText(/What does/)).toBeNull()
    expect([keys(), useDraftStore.getState().draft?.assets]).toEqual([['a', 'b', 'c'], []])
  })
  it('comes to the end where it is dropped beside the blocks; the browser never leaves for it', async () => {
    const { user, keys } = open()
    const beside = screen.getByRole('list', { name: 'The page' })
    const transfer = { files: [drawing('quay.svg', '1')], types: ['Files'] }
    // False: what the browser would do is kept from it.
    expect(fireEvent.dragOver(beside, { dataTransfer: transfer })).toBe(false)
    expect(fireEvent.drop(beside, { dataTransfer: transfer })).toBe(false)
    await user.type(await screen.findByLabelText(/What does the picture show/), 'The quay{Enter}')
    expect(keys()).toEqual(['a', 'b', 'c', 'picture'])
  })
  it('is taken from nobody who may only read, and the browser does not leave for it', () => {
    const { keys } = open(three, { mayEdit: false })
    const transfer = { files: [drawing('quay.svg', '1')], types: ['Files'] }
    expect(fireEvent.drop(row('a'), { dataTransfer: transfer })).toBe(false)
    expect(fireEvent.drop(screen.getByRole('list'), { dataTransfer: transfer })).toBe(false)
    expect([keys(), screen.queryByLabelText(/What does/)]).toEqual([['a', 'b', 'c'], null])
  })
  it('must be one', async () => {
    open()
    drop('a', new File(['nothing'], 'b.png', { type: 'image/png' }))
    await screen.findByText(/b.png is not a drawing/)
  })
})

describe('files that are dropped on a page', () => {
  it('become a document that it leads to, below the block they were dropped on: of one name in each of its formats', async () => {
    const { blocks, keys, onServer } = open()
    drop('a', fileNamed('study_planner.pdf'), fileNamed('study_planner.docx'), fileNamed('map.pdf'))
    await waitFor(() => expect(keys()).toEqual(['a', 'document', 'document-2', 'b', 'c']))
    expect(blocks().slice(1, 3)).toMatchObject([
      { kind: 'document', title: 'study planner', files: ['study-planner', 'study-planner-2'] },
      { kind: 'document', title: 'map', files: ['map'] },
    ])
    await screen.findByText('“study_planner.docx” is filled for each course: {code}.')
    await waitFor(() => expect(onServer().files).toHaveLength(3))
    expect(frame('document').textContent).toBe('study planner (PDF, 2 kB) · study planner (DOCX)')
    act(() => useDraftStore.getState().undo())
    expect([keys(), useDraftStore.getState().draft?.files]).toEqual([['a', 'b', 'c'], []])
  })
  it('are told by name where they may not be put in, and what was there stays', async () => {
    const { keys } = open()
    drop('a', fileNamed('page.html'), fileNamed('bad.pdf'))
    await screen.findByText(/“page.html” is none that may be put in/)
    await screen.findByText('“bad.pdf” was not put in: it is no PDF')
    expect(keys()).toEqual(['a', 'b', 'c'])
  })
})

describe('a document on a page', () => {
  const document = (files: string[], more: object = {}): Block =>
    ({ ...newBlock('document', 'd', exampleTemplate()), files, ...more }) as Block
  const title = () => screen.getByLabelText<HTMLInputElement>('Title')
  it('takes its files and its title by one drop, and gives a file away again', async () => {
    const { user, blocks } = open([document([])])
    act(() => frame('d').focus())
    await user.keyboard('{Enter}')
    screen.getByText(/name a document that nobody can open/)
    await user.upload(screen.getByLabelText('The document, in each of its formats'), [
      fileNamed('plan.pdf'),
      fileNamed('plan.docx'),
    ])
    await waitFor(() => expect(blocks()).toMatchObject([{ files: ['plan', 'plan-2'] }]))
    expect(title().value).toBe('plan')
    await user.click(screen.getAllByRole('button', { name: 'take out' })[0] as HTMLElement)
    expect(blocks()).toMatchObject([{ files: ['plan-2'], title: 'plan' }])
  })
  it('asks the instructor for theirs, and offers none then', async () => {
    const { user } = open([document([], { left: { as: 'asked' }, title: 'Put in your plan' })])
    act(() => frame('d').focus())
    await user.keyboard('{Enter}')
    expect(screen.getByLabelText<HTMLInputElement>('What is asked for').value).toBe(
      'Put in your plan',
    )
    expect(screen.queryByLabelText('The document, in each of its formats')).toBeNull()
  })
})

describe('what the library holds and the template does not', () => {
  const put = (name: string) => within(screen.getByRole('toolbar')).getByRole('button', { name })
  afterEach(() => void library.splice(0))
  const holds = (kind: LibraryEntry['kind'], ...documents: { key: string }[]) =>
    library.push(
      ...documents.map(
        (document) => ({ kind, key: document.key, document }) as unknown as LibraryEntry,
      ),
    )
  const wide = (key: string, width: number) => ({
    key,
    fileName: `${key}.svg`,
    svg: `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} 100"/>`,
    alternativeText: `The ${key}`,
    licence: 'our own',
  })
  const [muster] = exampleTemplate().houseTexts
  const bare = () => {
    const shown = open(three, { bare: true })
    return { ...shown, now: () => useDraftStore.getState().draft }
  }
  it('comes into it with the block that shows it, in one step', async () => {
    holds('house-text', { ...muster, key: 'absence' })
    const { user, keys, now, onServer } = bare()
    await user.click(put('house text'))
    expect(keys()).toEqual(['a', 'b', 'c', 'house-text'])
    expect(now()?.houseTexts.map(({ key }) => key)).toEqual(['absence'])
    await waitFor(() => expect(onServer().houseTexts).toHaveLength(1))
    act(() => useDraftStore.getState().undo())
    expect([keys(), now()?.houseTexts]).toEqual([['a', 'b', 'c'], []])
  })
  it('is offered wherever one is chosen: the widest picture for a banner first', async () => {
    holds('image', wide('anchor', 100), wide('quay', 600), wide('coast', 400))
    const { user, now, blocks } = bare()
    await user.click(put('more ▾'))
    await user.click(await screen.findByRole('menuitem', { name: 'Banner' }))
    expect(blocks().at(-1)).toMatchObject({ kind: 'banner', image: 'quay' })
    await user.selectOptions(await screen.findByLabelText('Shows'), 'coast.svg: The coast')
    expect(blocks().at(-1)).toMatchObject({ image: 'coast' })
    expect(now()?.assets.map(({ key }) => key)).toEqual(['quay', 'coast'])
  })
  it('cannot be put in where there is none', () => {
    bare()
    expect((put('house text') as HTMLButtonElement).disabled).toBe(true)
  })
})

describe('texts beside one another', () => {
  it('take a letter and an arrow that come before the cursor is there', async () => {
    const { blocks } = open([text('a', '<p>Alpha</p>'), text('b', '<p>Bravo</p>')])
    act(() => frame('a').focus())
    fireEvent.keyDown(frame('a'), { key: 'Enter' })
    const early = document.activeElement as HTMLElement
    expect(early.getAttribute('role')).toBeNull()
    fireEvent.keyDown(early, { key: '!' })
    fireEvent.keyDown(early, { key: 'ArrowDown' })
    await waitFor(() => expect(row('b').querySelector('[role=textbox]')).not.toBeNull())
    expect(blocks()[0]).toMatchObject({ html: '<p>Alpha!</p>' })
  })
  it('become one at Backspace, the cursor between them, and what was typed a moment before is in it', async () => {
    const { user, blocks, keys } = open([text('a', '<p>Alpha</p>'), text('b', '<p>Bravo</p>')])
    act(() => frame('b').focus())
    await user.keyboard('{Enter}')
    const field = await editor()
    // The cursor stands at the end: this is not the start.
    fireEvent.keyDown(field, { key: 'Backspace' })
    expect(keys()).toEqual(['a', 'b'])
    await user.click(screen.getByRole('button', { name: 'join with the one above' }))
    expect(blocks()).toEqual([text('a', '<p>Alpha</p><p>Bravo</p>')])
    act(() => useDraftStore.getState().undo())
    expect(keys()).toEqual(['a', 'b'])
  })
})
