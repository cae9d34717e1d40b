import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { analysePage } from './analysePage.ts'
import { factsWithOwn, withOwn, withoutOwn } from './ownLinks.ts'

const pageOf = (course: string, part: string) =>
  `<div data-wicker-block="to-do" data-wicker-part="week-overview@${part}"><a href="/courses/${course}/item-1">Overview</a> <a href="https://tides.example/?a=1&amp;b=2">Tides</a> <img src="/courses/${course}/files/x.png" alt="x"></div>`

describe('what a page shares with other courses', () => {
  it('is the same in two courses, and gives back each page byte for byte', () => {
    const [one, other] = [pageOf('nav-110', 'r-1'), pageOf('men-120', 'r-2')]
    const [a, b] = [withoutOwn(one, '/courses/nav-110/'), withoutOwn(other, '/courses/men-120/')]
    expect(a.html).toBe(b.html)
    expect([withOwn(a), withOwn(b)]).toEqual([one, other])
  })
  it('gives the facts of the very page', () => {
    const html = pageOf('nav-110', 'r-1')
    const { html: shared, own } = withoutOwn(html, '/courses/nav-110/')
    const { shared: _, ...facts } = factsWithOwn(analysePage(shared), own)
    const { shared: __, ...wanted } = analysePage(html)
    expect(facts).toEqual(wanted)
  })
  it('loses nothing of whatever page (property)', () => {
    const piece = fc.oneof(
      fc.constantFrom(
        '<a href="',
        '/courses/c/',
        '"',
        '>',
        'data-wicker-part="',
        'wf-own:0',
        "href='/courses/c/1'",
        '&amp;',
        '<p>',
        'src="/courses/c/x"',
      ),
      fc.string({ maxLength: 6 }),
    )
    fc.assert(
      fc.property(
        fc.array(piece, { maxLength: 30 }).map((pieces) => pieces.join('')),
        (html) => {
          expect(withOwn(withoutOwn(html, '/courses/c/'))).toBe(html)
        },
      ),
    )
  })
})
