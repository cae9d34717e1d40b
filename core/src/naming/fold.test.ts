import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { differencesBetween, foldName } from './index.ts'

describe('folding', () => {
  it.each([
    ['  Week\u00a03  ', 'week 3'],
    ['ＷＥＥＫ　３', 'week 3'],
    ['Sep 14 — Sep 20', 'sep 14 - sep 20'],
    ['“It’s”', '"it\'s"'],
    ['Ma\u0301rees', 'márees'],
    ['ﬁx', 'fix'],
    ['\u2000\u2001', ''],
    ['', ''],
  ])('%j is %j', (name, folded) => expect(foldName(name).text).toBe(folded))
  it('keeps, for every character, where it came from', () => {
    fc.assert(
      fc.property(
        fc.string({
          maxLength: 40,
          unit: fc.oneof(
            fc.constantFrom(' ', '  ', '–', 'é', 'e\u0301', 'Ａ', 'ﬁ', '·', '😀'),
            fc.string({ minLength: 1, maxLength: 1 }),
          ),
        }),
        (name) => {
          const { text, origin } = foldName(name)
          let last = 0
          for (let i = 0; i <= text.length; i++) {
            const at = origin[i] ?? -1
            expect(at).toBeGreaterThanOrEqual(last)
            expect(at).toBeLessThanOrEqual(name.length)
            last = at
          }
          expect(foldName(text).text).toBe(text)
          expect(text).toBe(text.trim())
        },
      ),
    )
  })
  it('names the ways in which two names differ', () => {
    expect(differencesBetween('Week 3 - Tides', 'Week 3 – Tides')).toEqual(['dashes'])
    expect(differencesBetween('week  03 - “Tides”', 'Week 3 – "Tides"')).toEqual([
      'dashes',
      'quotes',
      'spaces',
      'case',
      'zeros',
    ])
    expect(differencesBetween('same', 'same')).toEqual([])
  })
})
