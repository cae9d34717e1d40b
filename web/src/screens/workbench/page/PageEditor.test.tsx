import { act, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { userEvent } from '@testing-library/user-event'
import { describe, expect, it } from 'vitest'
import {
  everyPart,
  newBlock,
  offeredBlocks,
  readDocument,
  Template,
  type Block,
} from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { openDraft } from '../../../testing/keptDraft.testing.ts'
import { useDraftStore } from '../draftStore.ts'
import { blockTitle } from './blockWords.ts'
import { byKey } from './fromAbove.ts'
import { PageEditor } from './PageEditor.tsx'

const part = 'welcome'
const blocksOf = (template: Template | null): Block[] => {
  const page = everyPart(template ?? exampleTemplate()).find(({ key }) => key === part)
  if (page?.kind !== 'page') throw new Error('the page is there')
  return page.blocks
}
const Page = ({ above }: { above: readonly string[] }) => {
  const { draft } = useDraftStore()
  return draft ? (
    <PageEditor
      part={part}
      blocks={blocksOf(draft)}
      expected={null}
      template={draft}
      sources={{ parts: everyPart(draft).map(({ key, name }) => ({ key, name })), assets: [] }}
      above={byKey(blocksOf(draft).filter(({ key }) => above.includes(key)))}
    />
  ) : null
}
let opened = 0
/** The welcome page of the example with these blocks on it. */
const open = (
  blocks: readonly Block[] = blocksOf(null),
  { mayEdit = true, above = [] as string[] } = {},
) => {
  const draft = structuredClone(exampleTemplate())
  blocksOf(draft).splice(0, Infinity, ...blocks)
  const { onServer } = openDraft({ ...draft, key: `page-${++opened}` }, { mayEdit })
  render(<Page above={above} />)
  return {
    user: userEvent.setup(),
    blocks: () => blocksOf(useDraftStore.getState().draft),
    onServer,
  }
}
const keys = (blocks: readonly Block[]) => blocks.map(({ key }) => key)
const box = (key: string) => {
  const found = document.querySelector<HTMLElement>(`[data-block="${key}"]`)
  if (!found) throw new Error(`no block ${key} is shown`)
  return within(found)
}
/** Types into a field and leaves it, as a person does. */
const write = async (field: HTMLElement, text: string) => {
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}
const template = exampleTemplate()
const kinds = offeredBlocks.flatMap(({ kind }) => (newBlock(kind, 'x', template) ? [kind] : []))

describe('fixed text', () => {
  const fixed = (html: string): Block => {
    const block = newBlock('fixed-text', 'fixed', template)
    if (block?.kind !== 'fixed-text') throw new Error('it is a kind of block')
    return { ...block, html }
  }
  it.each([
    '<ul><li>gloves</li><li>a hat</li></ul>',
    '<table><caption>Watches</caption><thead><tr><th>Hour</th></tr></thead><tbody><tr><td>00</td></tr></tbody></table>',
    '<p>H<sub>2</sub>O <a href="https://charts.example/" target="_blank">chart</a></p>',
  ])('that is looked at and left is no edit, and loses nothing: %s', async (html) => {
    const { blocks } = open([fixed(html)])
    const field = await screen.findByRole('textbox', { name: 'Fixed text' })
    act(() => field.focus())
    act(() => field.blur())
    expect(blocks()).toEqual([fixed(html)])
    const shown = (tag: string) => field.querySelector(tag)?.textContent
    for (const tag of ['li', 'caption', 'th', 'td', 'sub', 'a'])
      if (html.includes(`<${tag}`)) expect([tag, shown(tag)]).not.toEqual([tag, undefined])
  })
})

describe('a page', () => {
  it.each(kinds)(
    'takes a new block of kind %s, which is valid in the document and can be taken away again',
    async (kind) => {
      const { user, blocks, onServer } = open()
      const before = blocks()
      await user.click(screen.getByRole('button', { name: /^Add a block/ }))
      await user.click(await screen.findByRole('menuitem', { name: blockTitle(kind) }))
      const added = blocks().at(-1)
      expect([blocks().length, added?.kind]).toEqual([before.length + 1, kind])
      await waitFor(() => expect(blocksOf(onServer())).toEqual(blocks()))
      expect(readDocument(Template, JSON.parse(JSON.stringify(onServer()))).ok).toBe(true)
      await user.click(box(added?.key ?? '').getByRole('button', { name: 'remove' }))
      expect(blocks()).toEqual(before)
      act(() => useDraftStore.getState().undo())
      expect(keys(blocks())).toEqual([...keys(before), added?.key])
    },
  )
  it('moves its blocks up and down; the first goes no further up, the last no further down', async () => {
    const { user, blocks } = open()
    expect(box('hello').getByRole<HTMLButtonElement>('button', { name: 'up' }).disabled).toBe(true)
    await user.click(box('hello').getByRole('button', { name: 'down' }))
    expect(keys(blocks())).toEqual(['promise', 'hello', 'muster'])
    expect(box('muster').getByRole<HTMLButtonElement>('button', { name: 'down' }).disabled).toBe(
      true,
    )
    await user.click(box('muster').getByRole('button', { name: 'up' }))
    expect(keys(blocks())).toEqual(['promise', 'muster', 'hello'])
  })
  it('keeps a block for other places in one step, and makes it the page’s own again', async () => {
    const { user, blocks } = open()
    const before = blocks()
    await user.click(box('promise').getByRole('button', { name: 'keep for other places' }))
    const { draft, undo } = useDraftStore.getState()
    expect(blocks()[1]).toMatchObject({ kind: 'kept-block', key: 'promise' })
    expect(draft?.keptBlocks[0]).toMatchObject({ block: { kind: 'fixed-text' } })
    await user.click(box('promise').getByRole('button', { name: /^make it/ }))
    expect(blocks()).toEqual(before)
    act(() => undo())
    act(() => undo())
    expect([blocks(), useDraftStore.getState().draft?.keptBlocks]).toEqual([before, []])
  })
  it('that is empty says what to do', () => {
    open([])
    expect(screen.getByText(/The page is empty. Add fixed text/)).toBeTruthy()
  })
  it('offers somebody who may only read nothing to change', () => {
    open(undefined, { mayEdit: false })
    expect(screen.queryByRole('button', { name: /^Add a block/ })).toBeNull()
    for (const field of screen.queryAllByRole('textbox'))
      expect(field.matches(':disabled') || field.getAttribute('contenteditable') === 'false').toBe(
        true,
      )
  })
  it('lets a layer change nothing of a block from above but what is asked of it', () => {
    open(undefined, { above: ['promise', 'hello'] })
    for (const key of ['promise', 'hello'])
      expect(box(key).queryByRole('button', { name: 'remove' })).toBeNull()
    expect(box('muster').getByRole('button', { name: 'remove' })).toBeTruthy()
  })
})

const only = <Kind extends Block['kind']>(kind: Kind, more: object): Block =>
  ({ ...newBlock(kind, 'only', template), ...more }) as Block

describe('the editor of a block', () => {
  it.each<[what: string, block: Block, field: RegExp, typed: string, keeps: object]>([
    [
      'a fill-in’s prompt',
      only('fill-in', {}),
      /^Prompt/,
      'Say who you are.',
      { prompt: 'Say who you are.' },
    ],
    ['a fill-in’s heading', only('fill-in', {}), /^Heading/, 'Who I am', { label: 'Who I am' }],
    ['a fill-in’s least words', only('fill-in', {}), /^Words at least/, '12', { minWords: 12 }],
    [
      'a checklist, without its empty lines',
      only('checklist', {}),
      /^One line for each/,
      ' Read \n\n Write ',
      { lines: ['Read', 'Write'] },
    ],
    [
      'a table of as many columns',
      only('table', { caption: 'x', header: ['A', 'B'], rows: [['1', '2']] }),
      /^One line a row/,
      'A | B\n1 | 3',
      { header: ['A', 'B'], rows: [['1', '3']] },
    ],
    [
      'a table that gets wider, row by row',
      only('table', { caption: 'x', header: ['A', 'B'], rows: [['1', '2']] }),
      /^One line a row/,
      'A | B | C\n1 | 3',
      { header: ['A', 'B', 'C'], rows: [['1', '3', '']] },
    ],
    [
      'a video’s address',
      only('video', {}),
      /^Address$/,
      'https://films.example/knots',
      { url: 'https://films.example/knots' },
    ],
  ])('keeps %s', async (_, block, field, typed, keeps) => {
    const { blocks, onServer } = open([block])
    await write(box('only').getByRole('textbox', { name: field }), typed)
    expect(blocks()[0]).toMatchObject(keeps)
    await waitFor(() => expect(blocksOf(onServer())[0]).toMatchObject(keeps))
  })
  it.each<[what: string, block: Block, field: RegExp]>([
    ['a fill-in’s prompt', only('fill-in', {}), /^Prompt/],
    ['every line of a checklist', only('checklist', {}), /^One line for each/],
    [
      'every row of a table',
      only('table', { caption: 'x', header: ['A'], rows: [] }),
      /^One line a row/,
    ],
    ['a video’s title', only('video', {}), /^Title$/],
  ])('does not empty %s', async (_, block, field) => {
    const { blocks } = open([block])
    const before = blocks()
    await write(box('only').getByRole('textbox', { name: field }), '   ')
    expect(blocks()).toEqual(before)
  })
  it('of signposts adds one, leads it elsewhere and takes it out; the last one stays', async () => {
    const { user, blocks } = open([
      only('signposts', { links: [{ text: 'Begin', to: 'welcome' }] }),
    ])
    const links = () => (blocks()[0] as Extract<Block, { kind: 'signposts' }>).links
    expect(box('only').queryByRole('button', { name: 'take out' })).toBeNull()
    await user.click(box('only').getByRole('button', { name: 'add a signpost' }))
    const second = box('only').getAllByRole('combobox', { name: 'leads to' })[1]
    if (second) await user.selectOptions(second, 'week')
    expect(links()).toMatchObject([{ to: 'welcome' }, { text: 'Go on', to: 'week' }])
    const [first] = box('only').getAllByRole('button', { name: 'take out' })
    if (first) await user.click(first)
    expect(links()).toMatchObject([{ to: 'week' }])
  })
  it('says how strongly a block is wanted', async () => {
    const { user, blocks } = open()
    await user.selectOptions(
      screen.getAllByRole('combobox', { name: /^Strength of/ })[0] ?? document.body,
      'should',
    )
    expect(blocks()[0]?.strength).toBe('should')
  })
})
