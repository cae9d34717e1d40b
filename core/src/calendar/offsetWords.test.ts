import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  endOfDay,
  offsetExamples,
  offsetWords,
  parseOffset,
  startOfDay,
  weekdays,
  type Offset,
} from './index.ts'

const parsed = (words: string, usualTime?: string) => {
  const result = parseOffset(words, usualTime)
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
  /** What is due at the end of a day where no time is written, in the words of people who write it for the first time. */
  it.each<[string, Partial<Offset>]>([
    ['Sunday 23:59', { from: 'weekday', weekday: 'sunday' }],
    ['sunday', { from: 'weekday', weekday: 'sunday' }],
    ['Due by Sun', { from: 'weekday', weekday: 'sunday' }],
    ['on Sundays at midnight', { from: 'weekday', weekday: 'sunday' }],
    ['Thurs, 9am', { from: 'weekday', weekday: 'thursday', time: '09:00' }],
    ['5 pm on Friday', { from: 'weekday', weekday: 'friday', time: '17:00' }],
    [
      'Friday of week 3 at 5:30 p.m.',
      { from: 'weekday', weekday: 'friday', week: 3, time: '17:30' },
    ],
    ['week 3, Friday', { from: 'weekday', weekday: 'friday', week: 3 }],
    ['next Monday 8:15', { from: 'weekday', weekday: 'monday', days: 7, time: '08:15' }],
    ['two days before Sunday', { from: 'weekday', weekday: 'sunday', days: -2 }],
    ['end of the week', { from: 'week-end' }],
    ['the end of week 4, noon', { from: 'week-end', week: 4, time: '12:00' }],
    ['when the module closes', { from: 'week-end' }],
    ['the day before the module closes', { from: 'week-end', days: -1 }],
    ['a week after the unit ends', { from: 'week-end', days: 7 }],
    ['start of the week', { from: 'week-start', time: '00:00' }],
    ['the day after its week begins', { from: 'week-start', days: 1, time: '00:00' }],
    ['Day 5', { from: 'week-start', days: 4 }],
    ['day 2 of the module 17h', { from: 'week-start', days: 1, time: '17:00' }],
    ['two weeks after the last day', { from: 'term-end', days: 14 }],
    ['the week after the end of the session', { from: 'term-end', days: 7 }],
    ['end of term', { from: 'term-end' }],
    ['a fortnight before the course ends', { from: 'term-end', days: -14 }],
    ['start of the course', { from: 'term-start', time: '00:00' }],
    ['three days after the first day of class', { from: 'term-start', days: 3 }],
    ['second class at 9.30', { from: 'class-day', classDay: 2, time: '09:30' }],
    ['the 1st meeting of week 2', { from: 'class-day', classDay: 1, week: 2 }],
    [
      'on Last day to withdraw, 12:00',
      { from: 'named-date', name: 'Last day to withdraw', time: '12:00' },
    ],
    ['the day before “Sunday”', { from: 'named-date', name: 'Sunday', days: -1 }],
  ])('%s', (words, offset) => {
    expect(parsed(words, endOfDay)).toEqual({ days: 0, time: endOfDay, ...offset })
  })
  it.each(offsetExamples)(
    'are understood as they are shown to whoever asks: $write',
    ({ write }) => {
      expect(parseOffset(write).ok).toBe(true)
    },
  )
  it.each([
    '',
    'soon',
    '23:59',
    'Sunday 25:00',
    'Sunday 13 pm',
    'the class',
    'some days before week 1',
    'eighth class',
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
        from: fc.constant('weekday' as const),
        weekday: fc.constantFrom(...weekdays),
        week,
        days,
        time,
      }),
      fc.record({
        from: fc.constant('named-date' as const),
        name: fc.constantFrom(
          'Exam week begins',
          'Last day to withdraw',
          'Sunday',
          'the last day',
          'Regatta at 10:00',
          'Supper at noon',
          'week 3',
          '“Quoted”',
          'the day before Easter',
          'Regatta of week 5',
        ),
        days,
        time,
      }),
    )
    fc.assert(
      fc.property(offset, fc.constantFrom(startOfDay, endOfDay), (written, usualTime) => {
        const known = Object.fromEntries(
          Object.entries(written).filter(([, value]) => value !== undefined),
        )
        expect(parsed(offsetWords(written, usualTime), usualTime)).toEqual(known)
      }),
    )
  })
})
