import { describe, expect, it } from 'vitest'
import { contrastOf, lookOf } from './inlineColours.ts'

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
