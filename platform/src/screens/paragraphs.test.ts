import { describe, expect, it } from 'vitest'
import * as fc from 'fast-check'
import { propertyRuns } from '@wickerframe/core/testing'
import { paragraphsIn, withParagraphs, type ParagraphEdit } from './paragraphs.ts'

/** The page after its form came back with some paragraphs typed over, as a browser sends it. */
const typedOver = (html: string, over: Readonly<Record<number, string>>, added = ''): string => {
  const edits: ParagraphEdit[] = paragraphsIn(html).map(({ text }, index) => ({
    index,
    was: text.replace(/\n/g, '\r\n'),
    text: (over[index] ?? text).replace(/\n/g, '\r\n'),
  }))
  const outcome = withParagraphs(html, edits, added)
  if ('changedMeanwhile' in outcome) throw new Error('nothing was changed meanwhile')
  return outcome.html
}

describe('editing the text of a page', () => {
  it('changes no byte outside what was typed over', () => {
    const source = '<div  class=x><p>one</p>\n<ul><li>two <b>bold</b></li></ul></div>'
    expect(paragraphsIn(source).map(({ text }) => text)).toEqual(['one', 'two bold'])
    expect(typedOver(source, { 0: 'ONE & all' })).toBe(
      '<div  class=x><p>ONE &#38; all</p>\n<ul><li>two <b>bold</b></li></ul></div>',
    )
  })
  it('keeps what was typed in two paragraphs and at the end', () => {
    expect(typedOver('<p>a</p><p>b</p><p>c</p>', { 0: 'A', 2: 'C' }, 'd\n')).toBe(
      '<p>A</p><p>b</p><p>C</p><p>d</p>',
    )
  })
  it('keeps a link, its words and its address, when words about it change', () => {
    expect(
      typedOver('<p>See <a href="/s">the syllabus</a> today.</p>', {
        0: 'Do read the syllabus before Friday.',
      }),
    ).toBe('<p>Do read <a href="/s">the syllabus</a> before Friday.</p>')
  })
  it('puts a word in the place of a link’s word inside the link, and a word beside it outside', () => {
    expect(typedOver('<p>See <a href="/s">syllabus</a></p>', { 0: 'See outline' })).toBe(
      '<p>See <a href="/s">outline</a></p>',
    )
    expect(typedOver('<p><a href="/s">Syllabus</a></p>', { 0: 'Our Syllabus here' })).toBe(
      '<p>Our <a href="/s">Syllabus</a> here</p>',
    )
  })
  it('takes a link away with its last word, and a picture never', () => {
    expect(typedOver('<p>See <a href="/s">this</a> now</p>', { 0: 'See now' })).toBe(
      '<p>See now</p>',
    )
    expect(typedOver('<p><em>word <img src="x.png" alt="x"></em></p>', { 0: '' })).toBe(
      '<p><em><img src="x.png" alt="x"></em></p>',
    )
  })
  it('reads source broken over lines, and keeps line breaks', () => {
    const source = '<p>one\n  two<br>three</p>'
    expect(paragraphsIn(source)[0]?.text).toBe('one two\nthree')
    expect(typedOver(source, {})).toBe(source)
    expect(typedOver(source, { 0: 'one two\nfour\nfive' })).toBe(
      '<p>one\n  two<br>four<br>five</p>',
    )
  })
  it('is refused when an edited paragraph says something else by now, and only then', () => {
    const edits = [
      { index: 0, was: 'two', text: 'x' },
      { index: 1, was: 'gone', text: 'gone' },
    ]
    expect(withParagraphs('<p>one</p>', edits, '')).toEqual({ changedMeanwhile: [0] })
    expect(withParagraphs('<p>two</p><p>else</p>', edits, '')).toEqual({
      html: '<p>x</p><p>else</p>',
    })
  })

  const word = fc.constantFrom('tide', 'rope', 'a', 'the', 'knot', '<b>', '&', 'é', '⚓')
  const inline = fc
    .array(
      fc.record({ text: fc.array(word, { minLength: 1, maxLength: 4 }), link: fc.boolean() }),
      { maxLength: 5 },
    )
    .map((runs) =>
      runs
        .map(({ text, link }) => {
          const words = text.join(' ').replace(/&/g, '&amp;').replace(/</g, '&lt;')
          return link ? `<a href="/x">${words}</a>` : words
        })
        .join(' '),
    )
  it('always reads afterwards what was typed, whatever the paragraph was', () => {
    fc.assert(
      fc.property(
        inline,
        fc.array(word, { maxLength: 8 }).map((words) => words.join(' ')),
        (inner, text) => {
          const after = typedOver(`<p>before</p><p>${inner}</p><p>after</p>`, { 1: text })
          expect(paragraphsIn(after).map(({ text }) => text)).toEqual(['before', text, 'after'])
        },
      ),
      propertyRuns(),
    )
  })
})
