import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { offsetWords, parseOffset, type Offset } from './index.ts'

const parsed = (words: string) => {
  const result = parseOffset(words)
  if (!result.ok) throw new Error(result.problems.message)
  return result.value
}

describe('offsets in words', () => {
  it.each([
    ['day 5 of week 3 at 23:59', { from: 'week-start', week: 3, days: 4, time: '23:59' }],
    ['3 weeks after the last day', { from: 'term-end', days: 21, time: '00:00' }],
    ['3 days before week 1', { from: 'week-start', week: 1, days: -3, time: '00:00' }],
    ['2 days before its week at 08:00', { from: 'week-start', days: -2, time: '08:00' }],
    ['the last day of its week at 23:59', { from: 'week-end', days: 0, time: '23:59' }],
    [
      'class day 2 of week 4 at 09:30',
      { from: 'class-day', classDay: 2, week: 4, days: 0, time: '09:30' },
    ],
    [
      'on Last day to withdraw',
      { from: 'named-date', name: 'Last day to withdraw', days: 0, time: '00:00' },
    ],
    [
      '1 week before Exam week begins',
      { from: 'named-date', name: 'Exam week begins', days: -7, time: '00:00' },
    ],
    ['the first day', { from: 'term-start', days: 0, time: '00:00' }],
  ])('%s', (words, offset) => {
    expect(parsed(words)).toEqual(offset)
  })
  it.each([
    '',
    'soon',
    'day 0 of week 3',
    'day 5 of',
    '900 days before week 1',
    'day 5 of week 3 at 25:00',
  ])('%j is not understood, and an example is given', (words) => {
    const result = parseOffset(words)
    expect(result.ok ? '' : result.problems.message).toContain('write it like')
  })
  it('are read back as they were written', () => {
    const time = fc.constantFrom('00:00', '08:30', '23:59')
    const days = fc.integer({ min: -366, max: 366 })
    const week = fc.option(fc.integer({ min: 0, max: 60 }), { nil: undefined })
    const offset: fc.Arbitrary<Offset> = fc.oneof(
      fc.record({
        from: fc.constantFrom('week-start' as const, 'week-end' as const),
        week,
        days,
        time,
      }),
      fc.record({ from: fc.constantFrom('term-start' as const, 'term-end' as const), days, time }),
      fc.record({
        from: fc.constant('class-day' as const),
        week,
        classDay: fc.integer({ min: 1, max: 7 }),
        days,
        time,
      }),
      fc.record({
        from: fc.constant('named-date' as const),
        name: fc.constantFrom('Exam week begins', 'Last day to withdraw'),
        days,
        time,
      }),
    )
    fc.assert(
      fc.property(offset, (written) => {
        const known = Object.fromEntries(
          Object.entries(written).filter(([, value]) => value !== undefined),
        )
        expect(parsed(offsetWords(written))).toEqual(known)
      }),
    )
  })
})
