import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  applyEdit,
  everyObjective,
  homePageKey,
  newBlock,
  offeredBlocks,
  readDocument,
  Template,
  type Block,
  type TemplateEdit,
} from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { blocksOfPage } from './blockActs.ts'
import { byKey } from './fromAbove.ts'
import {
  addBlock,
  addPicture,
  duplicateBlock,
  isTextBlock,
  joinTexts,
  keepBlock,
  loosenBlock,
  mayJoin,
  moveBlock,
  removeBlock,
  splitText,
  type BlocksOfPage,
  type TextBlock,
} from './blockEdits.ts'

const part = 'welcome'
/** The example with some blocks on one page. */
const templateWith = (blocks: readonly Block[], page = part): Template => {
  const template = structuredClone(exampleTemplate())
  const of = blocksOfPage(template, page) as Block[]
  of.splice(0, of.length, ...blocks)
  return template
}
const after = (template: Template, edits: readonly TemplateEdit[]): Template =>
  edits.reduce((now, edit) => {
    const next = applyEdit(now, edit)
    if (!next.ok) throw new Error(JSON.stringify(next.problems))
    return next.value.template
  }, template)
const pageOf = (template: Template, page = part): BlocksOfPage => ({
  part: page,
  blocks: blocksOfPage(template, page),
})
const text = (key: string, html: string, more: object = {}): TextBlock => ({
  kind: 'fixed-text',
  strength: 'must',
  key,
  html,
  ...more,
})
const kinds = offeredBlocks.flatMap(({ kind }) => {
  const block = newBlock(kind, 'x', exampleTemplate())
  return block ? [[kind, block] as const] : []
})
const block = fc
  .record({ kind: fc.constantFrom(...kinds.map(([, each]) => each)), n: fc.nat({ max: 9 }) })
  .map(({ kind, n }): Block => ({ ...structuredClone(kind), key: `b-${n}` }))
const page = fc.uniqueArray(block, { maxLength: 8, selector: ({ key }) => key })

describe('what is done with blocks of a page', () => {
  it('whatever is done in whatever order, leaves a template that is valid, with keys that are their own', () => {
    fc.assert(
      fc.property(
        page,
        fc.array(fc.tuple(fc.nat(5), fc.nat(20)), { maxLength: 8 }),
        (blocks, acts) => {
          let now = after(templateWith([]), [])
          now = templateWith(
            // Objectives have keys of their own over the whole template.
            blocks.filter(
              (each, i) =>
                each.kind !== 'objectives' ||
                blocks.findIndex(({ kind }) => kind === 'objectives') === i,
            ),
          )
          for (const [act, n] of acts) {
            const on = pageOf(now)
            const chosen = on.blocks[n % Math.max(1, on.blocks.length)]
            if (!chosen) continue
            const [, { kind }] = kinds[n % kinds.length] ?? ['', { kind: 'fixed-text' as const }]
            const made = [
              () =>
                addBlock(
                  on,
                  n % (on.blocks.length + 1),
                  kind === 'objectives' ? 'title' : kind,
                  now,
                ),
              () => duplicateBlock(on, chosen, new Set(everyObjective(now).map(({ key }) => key))),
              () => moveBlock(on, chosen, n - 5),
              () => removeBlock(on, chosen),
              () =>
                chosen.kind === 'kept-block'
                  ? loosenBlock(on, chosen, now)
                  : keepBlock(on, chosen, 'a page', now),
              () => (isTextBlock(chosen) ? splitText(on, chosen, ['<p>a</p>', '<p>b</p>']) : null),
            ][act]?.()
            if (!made) continue
            now = after(now, made.edits)
            const keys = blocksOfPage(now, part).map(({ key }) => key)
            expect(new Set(keys).size).toBe(keys.length)
            if (made.block !== null) expect(keys).toContain(made.block)
            const objectives = everyObjective(now).map(({ key }) => key)
            expect(new Set(objectives).size).toBe(objectives.length)
          }
          const read = readDocument(Template, JSON.parse(JSON.stringify(now)))
          expect(read.ok ? [] : read.problems).toEqual([])
        },
      ),
      { numRuns: Number(process.env['CASES'] ?? 50) },
    )
  })
  it('a text that is split and joined again says what it said, under its key', () => {
    const template = templateWith([text('a', '<p>one</p>'), text('b', '<p>two</p><p>three</p>')])
    const [, second] = pageOf(template).blocks
    if (!second || !isTextBlock(second)) throw new Error('it is a text')
    const split = splitText(pageOf(template), second, ['<p>two</p>', '<p>three</p>'])
    const two = after(template, split.edits)
    expect(pageOf(two).blocks.map(({ key }) => key)).toEqual(['a', 'b', 'b-2'])
    const lower = pageOf(two).blocks[2]
    if (!lower || !isTextBlock(lower)) throw new Error('it is a text')
    const joined = joinTexts(pageOf(two), lower, new Map())
    expect(joined?.block).toBe('b')
    expect(after(two, joined?.edits ?? [])).toEqual(template)
  })
  it('texts of two kinds, of a layer above, or with something between do not become one', () => {
    const blocks: Block[] = [
      text('a', '<p>one</p>'),
      { ...text('b', '<p>two</p>'), kind: 'guidance-note' },
      text('c', '<p>three</p>'),
      text('d', '<p>four</p>'),
    ]
    expect(blocks.map((_, index) => mayJoin(blocks, index, new Map()))).toEqual([
      false,
      false,
      false,
      true,
    ])
    const proposed = text('d', '', { left: { as: 'proposed' } })
    expect(mayJoin([...blocks.slice(0, 3), proposed], 3, new Map())).toBe(false)
    for (const above of ['c', 'd']) expect(mayJoin(blocks, 3, byKey([text(above, '')]))).toBe(false)
    expect(joinTexts({ part, blocks }, text('b', ''), new Map())).toBeNull()
  })
  it('what a home page must show is shown once: a copy and a second half are no such element', () => {
    const welcome = text('welcome', '<p>a</p><p>b</p>', { element: 'welcome' })
    const template = templateWith([welcome], homePageKey)
    const on = pageOf(template, homePageKey)
    for (const { edits } of [
      duplicateBlock(on, welcome, new Set()),
      splitText(on, welcome, ['<p>a</p>', '<p>b</p>']),
    ])
      expect(
        blocksOfPage(after(template, edits), homePageKey).map(({ element }) => element),
      ).toEqual(['welcome', undefined])
  })
  it('an element that is kept for other places and made the page’s own again is that element still', () => {
    const welcome = text('welcome', '<p>a</p>', { element: 'welcome', basis: 'Policy 4' })
    const template = templateWith([welcome], homePageKey)
    const kept = after(
      template,
      keepBlock(pageOf(template, homePageKey), welcome, 'the home page', template).edits,
    )
    const [place] = blocksOfPage(kept, homePageKey)
    if (place?.kind !== 'kept-block') throw new Error('it shows the kept block')
    const own = loosenBlock(pageOf(kept, homePageKey), place, kept)
    expect(blocksOfPage(after(kept, own?.edits ?? []), homePageKey)).toEqual([welcome])
    expect(loosenBlock(pageOf(kept, homePageKey), { ...place, kept: 'gone' }, kept)).toBeNull()
  })
  it('a picture comes with what it shows, its words as words', () => {
    const asset = { key: 'q', fileName: 'q.svg', svg: '<svg/>', alternativeText: 'x', licence: 'y' }
    const on = pageOf(templateWith([]))
    const [edit] = addPicture(on, 0, { asset, alternativeText: 'A "quay" & more' }).edits
    expect(edit).toMatchObject({
      block: { html: '<img src="asset:q.svg" alt="A &quot;quay&quot; &amp; more">' },
    })
  })
})
