import { describe, expect, it } from 'vitest'
import { exampleFacts } from '../rules/example/exampleCourse.ts'
import { Facts } from '../course/index.ts'
import { analysePage, readBlocks } from '../page/index.ts'
import { readDocument } from '../document/index.ts'
import { readerNames } from '../testing/leftBlocks.testing.ts'
import { htmlOf, pageWith } from './blocks.testing.ts'

const hail = {
  kind: 'fixed-text',
  key: 'hail',
  html: '<p>Dear {reader, sailor}: {topic} ([[room]]), {reader}.</p>',
}
const knowing = (readerName: string) => ({ ...exampleFacts(), readerName })

describe('the first name of whoever reads a page', () => {
  it('is what the platform shows it for, whatever that looks like', () => {
    for (const name of readerNames)
      expect(htmlOf(hail, {}, 2, knowing(name))).toBe(
        `<p>Dear ${name}: Leading marks ([room]), ${name}.</p>`,
      )
  })
  it('is the words that stand for it where the platform shows none', () => {
    expect(htmlOf(hail)).toBe('<p>Dear sailor: Leading marks ([room]), .</p>')
  })
  it('stands in lines as in texts, and in what asks something', () => {
    const list = {
      kind: 'checklist',
      key: 'c',
      label: 'For you, {reader, all}',
      lines: ['{reader, You} & I'],
      left: { as: 'asked' },
    }
    const { html, asks } = pageWith([list], {}, 2, knowing('%N%')).blocks[0] ?? {}
    expect(html).toContain('For you, %N%')
    expect(html).toContain('%N% &amp; I')
    expect(asks).toHaveLength(1)
    expect(html).toContain(asks?.[0])
  })
  it('stands in a label, which is what a page is read by', () => {
    const asks = {
      kind: 'fill-in',
      key: 'asks',
      type: 'text',
      label: 'In {term}, {reader, all}',
      prompt: 'Say when',
      scope: 'place',
      earlierPrompts: [],
    }
    const [block] = pageWith([asks], {}, 2, knowing('{topic}')).blocks
    if (!block) throw new Error('the page has it')
    expect(block.html).toContain('In Autumn 2026, {topic}</h3>')
    expect(block.definition).toMatchObject({ label: 'In Autumn 2026, {topic}' })
    const read = (answer: string) =>
      readBlocks([block], analysePage(block.html.replace('Say when', answer)), '2026-09-16')[0]
        ?.state
    expect([read('Say when'), read('At noon')]).toEqual(['unfilled', 'filled'])
  })
  it('is no field where a tag stands in it, and nobody’s name is put into a name', () => {
    expect(htmlOf({ ...hail, html: '<p>{reader, <b>all</b>}</p>' }, {}, 2, knowing('N'))).toBe(
      '<p>{reader, <b>all</b>}</p>',
    )
  })
  it.each([
    ['<script>', false],
    ['a"b', false],
    [' name', false],
    ['', false],
    ['a&b', false],
    ['two\nlines', false],
    ['x'.repeat(61), false],
    ['((given name))', true],
    ['名', true],
  ])('a platform may say %j: %s', (readerName, may) => {
    expect(readDocument(Facts, { ...exampleFacts(), readerName }).ok).toBe(may)
  })
})
