import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { pageWith } from '../expand/blocks.testing.ts'
import { firstHouseStyle } from '../houseStyle/index.ts'
import { platformNames, platforms } from '../plan/standing.testing.ts'
import { escapeHtml, type Block } from '../template/index.ts'
import { exampleFile, exampleForm } from '../testing/exampleFiles.testing.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { analysePage, readBlocks, renderPage } from './index.ts'

/** Words as people write them, among them signs of HTML, quotation marks, other scripts, and fields of the course. */
const words = fc
  .array(
    fc.constantFrom(
      'tide',
      'Log',
      'a<b',
      'R&D',
      'mañana',
      '“quay”',
      'l’ancre',
      '0600–0800',
      '潮汐',
      'مرساة',
      'x',
      'café',
      '{week}',
      'in {topic}',
      'naïve',
      '&amp;',
      '½',
    ),
    { minLength: 1, maxLength: 6 },
  )
  .map((list) => list.join(' '))
const said = words.map((text) => escapeHtml(text))

const marks = ['strong', 'em', 'u', 's', 'sub', 'sup', 'code'] as const
const run = fc
  .record({
    text: said,
    mark: fc.option(fc.constantFrom(...marks), { freq: 2 }),
    href: fc.option(
      fc.constantFrom(
        'https://charts.example/a?b=1&amp;c=2',
        'mailto:mate@sea.example',
        'part:welcome',
      ),
      { freq: 4 },
    ),
  })
  .map(({ text, mark, href }) => {
    const marked = mark ? `<${mark}>${text}</${mark}>` : text
    return href === null ? marked : `<a href="${href}">${marked}</a>`
  })
const formula = fc
  .tuple(fc.constantFrom('h', 'D_{week}', '\\frac{a}{b}'), said)
  .map(
    ([tex, text]) =>
      `<math alttext="${text}"><semantics><mfrac><mrow><mn>2</mn><mi>h</mi></mrow><mtext>${text}</mtext></mfrac><annotation encoding="application/x-tex">${tex}</annotation></semantics></math>`,
  )
const inline = fc
  .array(fc.oneof({ weight: 6, arbitrary: run }, formula), { minLength: 1, maxLength: 4 })
  .chain((runs) => fc.constantFrom(' ', '<br>').map((between) => runs.join(between)))
const paragraph = inline.map((html) => `<p>${html}</p>`)

/** What the page editor writes (the nodes of its schema): an item of a list and a cell hold paragraphs. */
const node = fc.oneof(
  { weight: 4, arbitrary: paragraph },
  fc
    .tuple(fc.integer({ min: 2, max: 4 }), said)
    .map(([level, text]) => `<h${level}>${text}</h${level}>`),
  fc
    .record({
      tag: fc.constantFrom('ul', 'ol'),
      items: fc.array(fc.tuple(paragraph, fc.option(paragraph, { freq: 3 })), {
        minLength: 1,
        maxLength: 4,
      }),
    })
    .map(
      ({ tag, items }) =>
        `<${tag}>${items.map(([own, under]) => `<li>${own}${under === null ? '' : `<ul><li>${under}</li></ul>`}</li>`).join('')}</${tag}>`,
    ),
  paragraph.map((html) => `<blockquote>${html}</blockquote>`),
  said.map((text) => `<pre><code>${text}</code></pre>`),
  fc
    .record({
      caption: fc.option(said),
      head: fc.tuple(said, said),
      cells: fc.tuple(paragraph, paragraph),
    })
    .map(
      ({ caption, head, cells }) =>
        `<table>${caption === null ? '' : `<caption>${caption}</caption>`}<tbody><tr>${head.map((cell) => `<th scope="col"><p>${cell}</p></th>`).join('')}</tr><tr>${cells.map((cell) => `<td>${cell}</td>`).join('')}</tr></tbody></table>`,
    ),
  said.map((text) => `<p><img src="/files/quay.png" alt="${text}"> ${text}</p>`),
  fc.constant('<hr>'),
)
const html = fc
  .tuple(paragraph, fc.array(node, { maxLength: 5 }))
  .map((list) => list.flat().join(''))

const files = [exampleFile('given', 1), exampleForm('form', 2), exampleFile('slides', 3)]
/** Blocks of the kinds that hold rich text, and some that hold lines. */
const blocks: fc.Arbitrary<Block> = fc.oneof(
  fc
    .record({ kind: fc.constantFrom('fixed-text', 'take-care', 'in-short'), html })
    .map((own): Block => ({ ...own, key: 'b', strength: 'must' }) as Block),
  fc
    .tuple(words, html)
    .map(([summary, html]): Block => ({ kind: 'fold', key: 'b', strength: 'must', summary, html })),
  html.map((question): Block => ({
    kind: 'discussion-prompt',
    key: 'b',
    strength: 'must',
    question,
    answers: 2,
  })),
  fc
    .tuple(html, html)
    .map(([why, whatToDo]): Block => ({
      kind: 'assignment-brief',
      key: 'b',
      strength: 'must',
      why,
      whatToDo,
      handIn: '',
      judged: '',
    })),
  fc
    .array(words, { minLength: 1, maxLength: 5 })
    .map((lines): Block => ({
      kind: 'checklist',
      key: 'b',
      strength: 'must',
      label: 'Before you go on',
      lines,
    })),
  fc
    .tuple(words, fc.subarray(['given', 'form', 'slides'], { minLength: 1 }))
    .map(([title, files]): Block => ({
      kind: 'document',
      key: 'b',
      strength: 'must',
      label: '',
      title,
      files,
    })),
  fc
    .tuple(words, words, words, words)
    .map(([a, b, c, d]): Block => ({
      kind: 'table',
      key: 'b',
      strength: 'must',
      caption: a,
      header: [b, c],
      rows: [[c, d]],
    })),
)
/** Each page says its things once: two blocks that say the same cannot be told apart without their marks. */
const pages = fc
  .array(blocks, { minLength: 1, maxLength: 6 })
  .map((list) => list.map((block, i): Block => ({ ...block, key: `b-${i}` })))
/** Blocks, each perhaps beside the text or on a card, with a house style or without. */
const looked = fc
  .tuple(
    pages,
    fc.array(fc.constantFrom({}, { beside: true }, { card: true }), { minLength: 6, maxLength: 6 }),
    fc.boolean(),
  )
  .map(([list, looks, styled]) => ({
    list: list.map((block, i) => ({ ...block, ...looks[i] })),
    more: { files, ...(styled ? { houseStyle: firstHouseStyle } : {}) },
  }))

describe('what the editor makes of a page, whatever was written and however the platform writes it', () => {
  it.each(platformNames)('is read back unchanged, block by block (%s)', (platform) => {
    fc.assert(
      fc.property(looked, ({ list, more }) => {
        const page = pageWith(list, more)
        const stands = platforms[platform](renderPage(page, '2026-09-16'))
        const read = readBlocks(page.blocks, analysePage(stands), '2026-09-16')
        expect(read.map(({ block, state }) => [block.key, state])).toEqual(
          list.map(({ key }) => [key, 'unchanged']),
        )
      }),
      propertyRuns(),
    )
  })
  it('is told altered where somebody wrote something into it', () => {
    fc.assert(
      fc.property(looked, fc.nat(5), ({ list, more }, n) => {
        const page = pageWith(list, more)
        const at = n % list.length
        const stands = renderPage(page, '2026-09-16').replace(
          new RegExp(`(data-wicker-block="b-${at}"[^>]*>)`),
          '$1<p>Somebody was here.</p>',
        )
        const read = readBlocks(page.blocks, analysePage(stands), '2026-09-16')
        expect(read.map(({ state }) => state)).toEqual(
          list.map((_, i) => (i === at ? 'altered' : 'unchanged')),
        )
      }),
      propertyRuns(),
    )
  })
})
