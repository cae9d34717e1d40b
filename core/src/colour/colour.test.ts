import { colord, extend } from 'colord'
import accessibility from 'colord/plugins/a11y'
import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { contrastRatio, nearestPassing, readColour, relativeLuminance } from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

extend([accessibility])
const colour = (text: string) => readColour(text) ?? { r: -1, g: -1, b: -1, a: 1 }
const hex = fc
  .integer({ min: 0, max: 0xffffff })
  .map((value) => `#${value.toString(16).padStart(6, '0')}`)
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
    fc.assert(
      fc.property(hex, hex, (one, other) => {
        expect(Math.abs(ratio(one, other) - colord(one).contrast(other))).toBeLessThan(0.011)
      }),
      propertyRuns(),
    )
  })
})

describe('the nearest colour that stands out', () => {
  it('does stand out, whichever two colours are given; it is itself where it did', () => {
    fc.assert(
      fc.property(hex, hex, fc.constantFrom(3, 4.5), (one, other, needed) => {
        const found = nearestPassing(colour(one), [{ against: colour(other), ratio: needed }])
        // Of black and white one is at least 4.58 from any colour.
        expect(found).not.toBeNull()
        expect(ratio(found ?? one, other)).toBeGreaterThanOrEqual(needed)
        if (ratio(one, other) >= needed) expect(found).toBe(one)
      }),
      propertyRuns(),
    )
  })
  const white = { against: colour('#ffffff'), ratio: 4.5 }
  it('stands out from all it meets, or there is none', () => {
    const both = ['#ffffff', '#000000'].map((text) => ({ against: colour(text), ratio: 7 }))
    expect(nearestPassing(colour('#888888'), both)).toBe(null)
    const cream = { against: colour('#f6eee2'), ratio: 4.5 }
    const found = nearestPassing(colour('#9cc4f2'), [white, cream]) ?? ''
    expect(ratio(found, '#ffffff')).toBeGreaterThanOrEqual(4.5)
    expect(ratio(found, '#f6eee2')).toBeGreaterThanOrEqual(4.5)
  })
  it('keeps the hue, and goes the shorter way', () => {
    const found = nearestPassing(colour('#e0a060'), [white]) ?? ''
    expect(colord(found).hue()).toBe(colord('#e0a060').hue())
    expect(colord(found).isDark()).toBe(true)
    expect(nearestPassing(colour('#404040'), [{ against: colour('#777777'), ratio: 4.5 }])).toMatch(
      /^#[01]/,
    )
  })
})
