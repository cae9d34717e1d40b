import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  anchorWords,
  mayWords,
  parseAnchor,
  parseMay,
  parseRepeat,
  permissions,
  repeatWords,
  whenWords,
  type Anchor,
  type Repeat,
} from './index.ts'

const read = (text: string) => {
  const result = parseRepeat(text)
  return result.ok ? result.value : result.problems.message
}

describe('words', () => {
  it('for repeats, exceptions and conditions', () => {
    expect(repeatWords({ per: 'week', every: 1, except: [], from: 2, to: 15 })).toBe(
      'each week, 2 to 15',
    )
    expect(repeatWords({ per: 'week', every: 2, except: [], from: 2 })).toBe('even weeks')
    expect(repeatWords({ per: 'times', times: 3, every: 1, except: [] })).toBe('3 times')
    expect(anchorWords({ at: 'last-of-unit' })).toBe('the last of each unit')
    expect(
      whenWords({
        modalities: ['online', 'hybrid'],
        weeks: { from: 15, to: 16 },
        classSections: 'shared',
      }),
    ).toBe('online or hybrid; 15 to 16 weeks; class sections shared between colleges')
  })
  it('are read as they are written (property)', () => {
    const number = fc.integer({ min: 1, max: 60 })
    const repeat = fc.oneof(
      fc.record({
        per: fc.constantFrom('week' as const, 'unit' as const, 'day' as const),
        every: fc.constantFrom<number>(1, 3, 4),
        from: number,
        to: fc.constant(60),
        except: fc.uniqueArray(number, { maxLength: 3 }),
      }),
      fc.record({
        per: fc.constant('times' as const),
        times: number,
        every: fc.constant(1),
        except: fc.constant([]),
      }),
      fc.constantFrom<Repeat>(
        { per: 'week', every: 1, except: [] },
        { per: 'unit', every: 2, except: [4] },
      ),
    )
    fc.assert(
      fc.property(repeat, (rule) => void expect(read(repeatWords(rule as Repeat))).toEqual(rule)),
    )
    const anchor: fc.Arbitrary<Anchor> = fc.oneof(
      fc.constantFrom<Anchor>(
        { at: 'first' },
        { at: 'last' },
        { at: 'last-of-unit' },
        { at: 'pause' },
      ),
      number.map((n): Anchor => ({ at: 'number', number: n })),
    )
    fc.assert(
      fc.property(
        anchor,
        (anchor) =>
          void expect(parseAnchor(anchorWords(anchor))).toEqual({ ok: true, value: anchor }),
      ),
    )
    fc.assert(
      fc.property(
        fc.subarray([...permissions]),
        (some) =>
          void expect(parseMay(some.join(', '))).toMatchObject({
            ok: true,
            value: Object.fromEntries(some.map((may) => [may, true])),
          }),
      ),
    )
  })
  it('are read as people shorten them', () => {
    expect(read('weekly')).toEqual({ per: 'week', every: 1, except: [] })
    expect(read('every week 2–15 except 8 and 9')).toEqual({
      per: 'week',
      every: 1,
      from: 2,
      to: 15,
      except: [8, 9],
    })
    expect(read('odd weeks')).toEqual({ per: 'week', every: 2, from: 1, except: [] })
    expect(read('every other week')).toEqual({ per: 'week', every: 2, except: [] })
    expect(read('')).toBe(null)
    expect(parseAnchor('week 8')).toEqual({ ok: true, value: { at: 'number', number: 8 } })
    expect(mayWords({ edit: true, rename: true, move: false })).toBe('rename, edit')
  })
  it('that cannot be read are refused with examples', () => {
    expect(read('each fortnight')).toContain('each week, 2 to 15')
    expect(read('each week, 9 to 3')).toBe('a range that goes up: 3 to 9')
    expect(parseAnchor('whenever').ok).toBe(false)
    expect(parseMay('paint').ok).toBe(false)
  })
})
