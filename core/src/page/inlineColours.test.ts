import { colord, extend } from 'colord'
import accessibility from 'colord/plugins/a11y'
import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  contrastOf,
  contrastRatio,
  lookOf,
  readColour,
  relativeLuminance,
} from './inlineColours.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

extend([accessibility])
const colour = (text: string) => readColour(text) ?? { r: -1, g: -1, b: -1, a: 1 }
const ratio = (one: string, other: string) => contrastRatio(colour(one), colour(other))

describe('contrast (WCAG 2.2, definitions of contrast ratio and relative luminance)', () => {
  it('is 21 for black on white and 1 for a colour on itself, as the definition says', () => {
    expect(ratio('black', 'white')).toBe(21)
    expect(ratio('#0b6468', '#0b6468')).toBe(1)
    expect([relativeLuminance(colour('white')), relativeLuminance(colour('black'))]).toEqual([1, 0])
  })
  it('is what Understanding 1.4.3 gives as examples: #777777 on white has 4.47, which does not meet 4.5 (from memory)', () => {
    expect(Math.floor(ratio('#777777', 'white') * 100) / 100).toBe(4.47)
    expect(ratio('#767676', 'white')).toBeGreaterThan(4.5)
    // The palest grey that meets 3 to 1 on white: common practice, no source.
    expect(ratio('#949494', 'white')).toBeGreaterThan(3)
    expect(ratio('#959595', 'white')).toBeLessThan(3)
  })
  it('agrees with a well-known library on random colours (colord, a11y plugin, which cuts after two digits)', () => {
    const hex = fc
      .integer({ min: 0, max: 0xffffff })
      .map((value) => `#${value.toString(16).padStart(6, '0')}`)
    fc.assert(
      fc.property(hex, hex, (one, other) => {
        expect(Math.abs(ratio(one, other) - colord(one).contrast(other))).toBeLessThan(0.011)
      }),
      propertyRuns(),
    )
  })
})

describe('looks written in a page', () => {
  it('are read from styles, and inherited', () => {
    const outer = lookOf('background: #eee url(x.png) no-repeat; font-size: 14pt', null)
    expect(outer).toEqual({ colour: null, background: '#eee', size: 14 * (4 / 3), bold: false })
    expect(lookOf('COLOR: Red !important; font-weight: 700', outer)).toMatchObject({
      colour: 'red',
      background: '#eee',
      bold: true,
    })
    expect(lookOf('margin: 0; color: inherit; color', outer)).toBe(outer)
  })
  it('need 3 for large text, and 4.5 for other; half-transparent colours are mixed with the ground', () => {
    expect(
      contrastOf({ colour: '#949494', background: null, size: 24, bold: false }),
    ).toMatchObject({ needed: 3 })
    expect(contrastOf({ colour: '#949494', background: null, size: 19, bold: true })).toMatchObject(
      { needed: 3 },
    )
    expect(
      contrastOf({ colour: '#949494', background: null, size: 19, bold: false }),
    ).toMatchObject({ needed: 4.5 })
    expect(
      contrastOf({ colour: 'rgba(0,0,0,0.1)', background: null, size: null, bold: false })?.ratio,
    ).toBeLessThan(1.4)
  })
  it('are not read without end', () => {
    expect(lookOf(`color:red;${'x'.repeat(1_000_000)}`, null)).toMatchObject({ colour: 'red' })
  })
})
