import { parseFragment } from 'parse5'
import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { letIn } from '../allow/index.ts'
import { readColour } from '../colour/index.ts'
import { analysePage, contrastOf, sameButForLook } from '../page/index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'
import { colourPairs, firstHouseStyle, HouseStyle, styledHtml, type HouseColours } from './index.ts'

const hex = fc
  .integer({ min: 0, max: 0xffffff })
  .map((value) => `#${value.toString(16).padStart(6, '0')}`)
const anyStyle: fc.Arbitrary<HouseStyle> = fc.record({
  colours: fc.record<HouseColours>({
    main: hex,
    onMain: hex,
    accent: hex,
    tint: hex,
    paper: hex,
    ink: hex,
    link: hex,
  }),
  headings: fc.constantFrom('plain', 'bar', 'line'),
  rules: fc.constantFrom('thin', 'double', 'dashed'),
  corners: fc.constantFrom('square', 'round'),
})

const page = `<div class="house-banner"><p class="house-picture"><img class="house-picture" src="asset:a.svg" alt="Quay"></p><div class="house-plate"><p class="house-above">NAV 110</p><h2>Coastal Navigation</h2></div></div>
<h2>The route</h2><ul class="house-route"><li class="house-stop"><strong class="house-number">1</strong> <a href="https://a.example">Casting off</a></li></ul>
<div class="house-note"><p>Mind the <a href="https://b.example">tide</a>.</p></div>
<table><thead><tr><th scope="col">Day</th></tr></thead><tbody><tr><th scope="row">Mon</th><td>6</td></tr></tbody></table><hr>`

const styleOf = (html: string, start: string): string | undefined =>
  new RegExp(`${start}[^>]*? style="([^"]*)"`).exec(html)?.[1]

describe('a house style', () => {
  it('is written into the page as inline styles; the names of its roles are not', () => {
    const html = styledHtml(page, firstHouseStyle)
    expect(html).not.toContain('house-')
    expect(html).toContain('<h2>Coastal Navigation</h2>')
    expect(html).toMatch(/<h2 style="border:0;border-left:5px solid #b5703a[^"]*">The route/)
    expect(styleOf(html, '<p>Mind the <a')).toBe('color:#0b5a6e')
    expect(styleOf(html, '<th scope="col"')).toContain('background:#143f52')
    expect(styleOf(html, '<th scope="row"')).not.toContain('background')
    expect(styleOf(html, '<hr')).toContain('#b5703a')
  })

  it('leaves what has no ground of its own in the colours of the platform, dark or light', () => {
    const html = styledHtml(page, firstHouseStyle)
    expect(html).toContain('<a href="https://a.example">Casting off</a>')
    expect(html).not.toMatch(/<(?:h2|h3|p|ul|li|td)\b[^>]*[ ;"]color:/)
  })

  it('is left out where a template has none, byte for byte', () => {
    const plain = '<h2>Tides</h2><p>Twice <a href="https://a.example">a day</a>.</p><table></table>'
    expect(styledHtml(plain, undefined)).toBe(plain)
    expect(
      styledHtml('<ul class="house-route own" id="r"></ul><p class="own">a</p>', undefined),
    ).toBe('<ul class="house-route own" id="r"></ul><p class="own">a</p>')
    expect(styledHtml('<ul class="house-dates"></ul>', undefined)).toBe('<ul></ul>')
  })

  it('does not touch what has a style of its own, nor what stands in the value of an attribute', () => {
    const own = '<h2 style="color:#000000">Tides</h2>'
    expect(styledHtml(own, firstHouseStyle)).toBe(own)
    const inside = '<p title="<h2>not a heading</h2>">a</p>'
    expect(styledHtml(inside, firstHouseStyle)).toBe(inside)
  })

  it('says the same with and without it, in any colours, and nothing in it is refused', () => {
    const words = (html: string) => analysePage(html).paragraphs.map(({ text }) => text)
    fc.assert(
      fc.property(anyStyle, (style) => {
        const html = styledHtml(page, HouseStyle.parse(style))
        expect(letIn(html)).toEqual({ html, refused: [] })
        expect(words(html)).toEqual(words(page))
        expect(sameButForLook(html, styledHtml(page, firstHouseStyle))).toBe(true)
        expect(sameButForLook(html, styledHtml(page, undefined))).toBe(true)
        expect(parseFragment(html).childNodes.length).toBe(parseFragment(page).childNodes.length)
      }),
      propertyRuns(),
    )
  })

  it('can be read wherever it says it can: the pairs that pass leave no text below its contrast', () => {
    fc.assert(
      fc.property(anyStyle, (style) => {
        const failing = colourPairs(style.colours).filter(
          ({ passes, needed }) => !passes && needed === 4.5,
        )
        const seen = analysePage(styledHtml(page, style)).coloured.flatMap(({ look }) => {
          const contrast = contrastOf(look)
          return contrast && contrast.ratio < 4.5 ? [look] : []
        })
        if (failing.length === 0) expect(seen).toEqual([])
        // And what it finds wanting is there to be seen.
        if (seen.length > 0) expect(failing.length).toBeGreaterThan(0)
      }),
      propertyRuns(),
    )
  })

  it('tells of two colours that cannot be read on one another what would do instead of either', () => {
    const pairs = colourPairs({ ...firstHouseStyle.colours, main: '#8fb7c4' })
    const [wrong, ...others] = pairs.filter(({ passes }) => !passes)
    expect(others).toEqual([])
    expect(wrong).toMatchObject({ front: 'onMain', ground: 'main', needed: 4.5 })
    for (const [front, ground] of [
      [wrong?.instead.front ?? '', '#8fb7c4'],
      ['#ffffff', wrong?.instead.ground ?? ''],
    ] as const) {
      expect(readColour(front)).not.toBeNull()
      expect(
        colourPairs({ ...firstHouseStyle.colours, onMain: front, main: ground }).every(
          ({ passes }) => passes,
        ),
      ).toBe(true)
    }
    expect(colourPairs(firstHouseStyle.colours).every(({ passes }) => passes)).toBe(true)
  })

  it('tells words that changed from words that only look otherwise', () => {
    const was = '<p>Two <strong>tides</strong> a day.</p>'
    expect(
      sameButForLook(
        was,
        '<div style="color:#000000"><p>Two <strong style="color:red">tides</strong> a day.</p></div>',
      ),
    ).toBe(true)
    expect(sameButForLook(was, '<p>Two <em>tides</em> a day.</p>')).toBe(false)
    expect(sameButForLook(was, '<p>Three <strong>tides</strong> a day.</p>')).toBe(false)
    expect(sameButForLook('<p><a href="/a">a</a></p>', '<p><a href="/b">a</a></p>')).toBe(false)
  })
})
