import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { analysePage } from './analysePage.ts'
import { isTextOf, sameText } from './sameText.ts'

const squeezed = (text: string): string => text.replace(/\s+/g, '')
const letters = fc.constantFrom(
  ...'aé1&<>"\'’“” \t\n\u00a0\u2003\ufeff\u{1f6f6}',
  'knots',
  '&amp;',
  '&lt;',
  '&nbsp;',
)
const texts = fc.array(letters, { maxLength: 12 }).map((parts) => parts.join(''))
const pieces = fc.oneof(
  texts,
  fc.constantFrom(
    '<p>',
    '</p>',
    '<strong class="a">',
    '</strong>',
    '<br>',
    '<!-- kept -->',
    '<style>p {}</style>',
    '<img alt="a knot">',
    '<p title="a > b">',
  ),
)

describe('texts that differ only in white space', () => {
  it('are the same text, and no others are', () => {
    fc.assert(
      fc.property(texts, texts, (one, other) => {
        expect(sameText(one, other)).toBe(squeezed(one) === squeezed(other))
      }),
    )
  })

  it('are the same however their spaces fall', () => {
    fc.assert(
      fc.property(texts, (text) => {
        expect(sameText(text, [...text].join(' '))).toBe(true)
        expect(sameText(text, `${text}.`)).toBe(false)
      }),
    )
  })
})

describe('what HTML says', () => {
  it('is never told otherwise than by a parser', () => {
    fc.assert(
      fc.property(fc.array(pieces, { maxLength: 8 }), (parts) => {
        const html = parts.join('')
        const said = analysePage(html)
          .paragraphs.map(({ text }) => text)
          .join(' ')
        for (const text of [said, `${said}.`, said.slice(1)])
          if (isTextOf(text, html)) expect(squeezed(text)).toBe(squeezed(said))
      }),
      { numRuns: 1000 },
    )
  })

  it.each([
    ['A knot & a bend', '<p>A  knot</p><p>&amp; a <em>bend</em></p>'],
    ["A sailor's “knot”".replace(/[“”]/g, '"'), '<p>A sailor’s “knot”</p>'],
    ['', '<p></p>'],
  ])('is told without a parser where it holds tags and text: %s', (text, html) => {
    expect(isTextOf(text, html)).toBe(true)
  })

  it.each([
    ['A knot', '<p>A knot<!-- one --></p>'],
    ['A\u00a0knot', '<p>A&nbsp;knot</p>'],
    ['p {}', '<style>p {}</style>'],
    ['A knot', '<p>A knot, tied'],
    ['A knot, tied', '<p>A knot</p>'],
  ])('is left to a parser, or is something else: %s', (text, html) => {
    expect(isTextOf(text, html)).toBe(false)
  })
})
