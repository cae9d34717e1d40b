import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { letIn } from '../allow/index.ts'
import { escapeHtml } from '../template/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { readPasted } from './readPasted.ts'

type Run = { text: string; bold: boolean; href: string | null }
type Listed = { text: string; under: string[] }
type Block =
  | { is: 'heading'; level: number; text: string }
  | { is: 'paragraph'; runs: Run[] }
  | { is: 'list'; ordered: boolean; items: Listed[] }
  | { is: 'table'; rows: string[][] }

const words = fc
  .array(fc.constantFrom('tide', 'Log', 'a<b', 'R&D', 'mañana', '“quay”', '0600', 'x'), {
    minLength: 1,
    maxLength: 5,
  })
  .map((list) => list.join(' '))
const run = fc.record({
  text: words,
  bold: fc.boolean(),
  href: fc.option(fc.constantFrom('https://charts.example/a?b=1&c=2', 'mailto:mate@sea.example'), {
    freq: 3,
  }),
})
const block: fc.Arbitrary<Block> = fc.oneof(
  fc.record({
    is: fc.constant('heading' as const),
    level: fc.integer({ min: 1, max: 6 }),
    text: words,
  }),
  fc.record({
    is: fc.constant('paragraph' as const),
    runs: fc.array(run, { minLength: 1, maxLength: 4 }),
  }),
  fc.record({
    is: fc.constant('list' as const),
    ordered: fc.boolean(),
    items: fc.array(fc.record({ text: words, under: fc.array(words, { maxLength: 2 }) }), {
      minLength: 1,
      maxLength: 4,
    }),
  }),
  fc
    .record({ columns: fc.integer({ min: 2, max: 4 }), rows: fc.integer({ min: 2, max: 4 }) })
    .chain(({ columns, rows }) =>
      fc.record({
        is: fc.constant('table' as const),
        rows: fc.array(fc.array(words, { minLength: columns, maxLength: columns }), {
          minLength: rows,
          maxLength: rows,
        }),
      }),
    ),
)
/** Of several lists beside one another nobody can tell where one ends, where they are drawn. */
const page = fc
  .array(block, { minLength: 1, maxLength: 8 })
  .map((blocks) => blocks.filter((one, i) => one.is !== 'list' || blocks[i - 1]?.is !== 'list'))

/** How somebody writes what a page holds. */
interface Dialect {
  run: (run: Run) => string
  paragraph: (inner: string) => string
  heading: (level: number, text: string) => string
  list: (ordered: boolean, items: readonly Listed[]) => string
  table: (rows: readonly (readonly string[])[]) => string
  around: (page: string) => string
}
const link = ({ href }: Run, inner: string): string =>
  href === null ? inner : `<a href="${escapeHtml(href)}">${inner}</a>`
const nestedList = (item: (text: string) => string) => {
  const list = (ordered: boolean, items: readonly Listed[]): string => {
    const tag = ordered ? 'ol' : 'ul'
    return `<${tag}>${items
      .map(
        ({ text, under }) =>
          `<li>${item(text)}${
            under.length > 0
              ? list(
                  false,
                  under.map((one) => ({ text: one, under: [] })),
                )
              : ''
          }</li>`,
      )
      .join('')}</${tag}>`
  }
  return list
}
const cells = (tag: string, row: readonly string[], around: (text: string) => string): string =>
  `<tr>${row.map((text) => `<${tag}>${around(escapeHtml(text))}</${tag.split(' ')[0]}>`).join('')}</tr>`
/** As we keep it. */
const kept: Dialect = {
  run: (one) =>
    link(one, one.bold ? `<strong>${escapeHtml(one.text)}</strong>` : escapeHtml(one.text)),
  paragraph: (inner) => `<p>${inner}</p>`,
  heading: (level, text) => `<h${level}>${escapeHtml(text)}</h${level}>`,
  list: nestedList((text) => `<p>${escapeHtml(text)}</p>`),
  table: ([head = [], ...rows]) =>
    `<table><tbody>${cells('th scope="col"', head, (text) => text)}${rows.map((row) => cells('td', row, (text) => text)).join('')}</tbody></table>`,
  around: (text) => text,
}
const styled = (text: string): string => `<span style="font-size:11pt;color:#333">${text}</span>`
const dialects: Readonly<Record<string, Dialect>> = {
  'our own form': kept,
  'spans and boxes with styles': {
    run: (one) =>
      link(
        one,
        `<span style="font-size:11pt;font-weight:${one.bold ? 700 : 400}">${escapeHtml(one.text)}</span>`,
      ),
    paragraph: (inner) => `<div class="x" style="margin:0">${inner}</div>`,
    heading: (level, text) =>
      `<h${level} style="line-height:1"><b>${styled(escapeHtml(text))}</b></h${level}>`,
    list: nestedList((text) => styled(escapeHtml(text))),
    table: ([head = [], ...rows]) =>
      `<div><table style="border:none"><colgroup><col></colgroup><thead>${cells('th', head, styled)}</thead><tbody>${rows.map((row) => cells('td', row, styled)).join('')}</tbody></table></div>`,
    around: (text) => `<b style="font-weight:normal" id="fragment">${text}</b><br>`,
  },
  'lists drawn as paragraphs': {
    run: (one) =>
      link(
        one,
        one.bold
          ? `<b><span lang="EN">${escapeHtml(one.text)}<o:p></o:p></span></b>`
          : escapeHtml(one.text),
      ),
    paragraph: (inner) => `<p class="Body">${inner}<o:p></o:p></p>`,
    heading: (level, text) =>
      `<p style='mso-outline-level:${level}'><b>${escapeHtml(text)}</b><o:p></o:p></p>`,
    list: (ordered, items) => {
      const drawn = (depth: number, mark: string, text: string) =>
        `<p style='margin-left:.5in;mso-list:l0 level${depth} lfo1'><![if !supportLists]><span style='mso-list:Ignore'>${mark}<span>&nbsp;&nbsp; </span></span><![endif]>${escapeHtml(text)}</p>`
      return items
        .map(
          ({ text, under }, i) =>
            drawn(1, ordered ? `${i + 1}.` : '·', text) +
            under.map((one) => drawn(2, '·', one)).join(''),
        )
        .join('')
    },
    table: ([head = [], ...rows]) =>
      `<table border=1>${cells('td', head, (text) => `<p><b>${text}</b></p>`)}${rows.map((row) => cells('td', row, (text) => `<p>${text}</p>`)).join('')}</table>`,
    around: (text) =>
      `<html><head><style>p{margin:0}</style></head><body><!--StartFragment-->${text}<!--EndFragment--></body></html>`,
  },
  'lines broken in the source, paragraphs not closed': {
    run: (one) =>
      link(
        one,
        one.bold
          ? `<font face="Serif"><b>${escapeHtml(one.text)}</b></font>`
          : escapeHtml(one.text).replaceAll(' ', '\n'),
      ),
    paragraph: (inner) => `<p style="margin-bottom: 0in">\n${inner}\n`,
    heading: (level, text) => `<h${level} class="western">\n${escapeHtml(text)}</h${level}>\n`,
    list: nestedList((text) => `<p style="margin-bottom: 0in">${escapeHtml(text)}</p>\n`),
    table: ([head = [], ...rows]) =>
      `<table width="170"><col width="50"/>\n${cells('th width="50"', head, (text) => `<p>\n\t${text}</p>`)}\n${rows.map((row) => cells('td', row, (text) => `<p>\n\t${text}</p>`)).join('\n')}</table>\n<p>&nbsp;</p>`,
    around: (text) =>
      `<!DOCTYPE html>\n<html><head><title></title></head><body>${text}</body></html>`,
  },
}

const write = (blocks: readonly Block[], dialect: Dialect): string =>
  dialect.around(
    blocks
      .map((one) => {
        switch (one.is) {
          case 'heading':
            return dialect.heading(one.level, one.text)
          case 'paragraph':
            return dialect.paragraph(one.runs.map((part) => dialect.run(part)).join(' – '))
          case 'list':
            return dialect.list(one.ordered, one.items)
          case 'table':
            return dialect.table(one.rows)
        }
      })
      .join(''),
  )
/** Headings as a block holds them: the highest of the page, and those below. */
const fitted = (blocks: readonly Block[]): Block[] => {
  const top = Math.min(...blocks.flatMap((one) => (one.is === 'heading' ? [one.level] : [])))
  return blocks.map((one) =>
    one.is === 'heading' ? { ...one, level: one.level === top ? 3 : 4 } : one,
  )
}

describe('a page that is pasted', () => {
  it.each(Object.entries(dialects))(
    'loses no heading, list, table, link or emphasis: %s',
    (_, dialect) => {
      fc.assert(
        fc.property(page, (blocks) => {
          expect(readPasted(write(blocks, dialect)).html).toBe(write(fitted(blocks), kept))
        }),
        propertyRuns(),
      )
    },
  )
  it('is what it is when it is copied again', () => {
    fc.assert(
      fc.property(page, fc.constantFrom(...Object.values(dialects)), (blocks, dialect) => {
        const { html } = readPasted(write(blocks, dialect))
        expect(readPasted(html)).toEqual({ html, pictures: [], left: [] })
      }),
      propertyRuns(),
    )
  })
  it('is let in, whatever was copied', () => {
    const piece = fc.constantFrom(
      '<p',
      '>',
      '</p>',
      '<table>',
      '<tr>',
      '<td>',
      '</table>',
      '<ul><li>',
      '</ul>',
      '<a href="javascript:x">',
      '</a>',
      '<b style="',
      '"',
      '<!--',
      '-->',
      '<script>',
      '</script>',
      '<svg>',
      '<img src="data:image/png;base64,AA" alt="',
      '<math>',
      '<style>',
      '</style>',
      'text',
      '&lt;',
      '<br>',
      '<h2>',
      '<template>',
      '\u0000',
      '<![if x]>',
      'mso-list:l0 level9',
      '</h2>',
    )
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 40 }), (parts) => {
        const { html } = readPasted(parts.join(''))
        expect(letIn(html)).toEqual({ html, refused: [] })
      }),
      propertyRuns(),
    )
  })
})
