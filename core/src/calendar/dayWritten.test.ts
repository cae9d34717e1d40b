import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatDate } from './dateText.ts'
import { dayWritten } from './dayWritten.ts'
import { addDays, addMonths } from './plainDate.ts'

/** A Wednesday. */
const near = '2026-09-16'
const read = (text: string, from = near): string | readonly string[] | null => {
  const written = dayWritten(text, from)
  return written.state === 'day' ? written.day : written.state === 'either' ? written.days : null
}

describe('a day that somebody writes', () => {
  it.each([
    ['16 Sep', '2026-09-16'],
    ['16 sep 2026', '2026-09-16'],
    ['Wed 16 Sep 2026', '2026-09-16'],
    ['wednesday, september 16, 2026', '2026-09-16'],
    ['Sept. 16', '2026-09-16'],
    ['16th of September', '2026-09-16'],
    ['1st september', '2026-09-01'],
    ['16Sep', '2026-09-16'],
    ['16. Sep', '2026-09-16'],
    ['14 septembre', '2026-09-14'],
    ['20 de septiembre de 2026', '2026-09-20'],
    ['2 may 2027', '2027-05-02'],
    ['may 2', '2026-05-02'],
    ['2026-09-16', '2026-09-16'],
    ['2026/9/6', '2026-09-06'],
    ['20260916', '2026-09-16'],
    ['16.9.', '2026-09-16'],
    ['4.9.2026', '2026-09-04'],
    ['16/9', '2026-09-16'],
    ['9/16/26', '2026-09-16'],
    ['  16   sep ', '2026-09-16'],
    ['today', '2026-09-16'],
    ['Tomorrow', '2026-09-17'],
    ['yesterday', '2026-09-15'],
    ['monday', '2026-09-21'],
    ['Wed', '2026-09-23'],
    ['lundi', '2026-09-21'],
  ])('“%s” is %s', (text, day) => expect(read(text)).toBe(day))

  it.each([
    '',
    '   ',
    'soon',
    '32 Sep',
    '30 Feb 2026',
    '2026-13-01',
    '16',
    '16 Sep or so',
    '0/0',
    'Sep',
  ])('“%s” is none', (text) => expect(read(text)).toBeNull())

  it('is asked for once more where day and month may each be the other', () => {
    expect(read('4/9/2026')).toEqual(['2026-09-04', '2026-04-09'])
    expect(read('9-4')).toEqual(['2026-04-09', '2026-09-04'])
    expect(read('5/5')).toBe('2026-05-05')
  })

  it('without a year is the nearest one: in December, the January that comes', () => {
    expect(read('8 Jan', '2026-12-20')).toBe('2027-01-08')
    expect(read('20 Dec', '2027-01-08')).toBe('2026-12-20')
  })

  it('is read back from every way in which days are written here, and anything typed is answered', () => {
    const day = fc.integer({ min: -4000, max: 40_000 }).map((days) => addDays('2026-01-01', days))
    fc.assert(
      fc.property(
        day,
        fc.constantFrom(
          'yyyy-MM-dd',
          'EEE d MMM yyyy',
          'd MMMM yyyy',
          'MMM d, yyyy',
          'd.M.yyyy',
          'EEEE, MMMM d, yyyy',
        ),
        (date, style) => {
          expect(read(formatDate(date, style))).toBe(date)
        },
      ),
    )
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(['day', 'either', 'none']).toContain(dayWritten(text, near).state)
      }),
    )
  })
})

describe('so many months later', () => {
  it.each([
    ['2026-01-31', 1, '2026-02-28'],
    ['2027-12-31', 2, '2028-02-29'],
    ['2026-03-15', -3, '2025-12-15'],
    ['2026-05-31', -1, '2026-04-30'],
    ['2026-09-16', 0, '2026-09-16'],
    ['2026-11-30', 13, '2027-12-30'],
  ])('%s and %i months is %s', (from, months, day) => expect(addMonths(from, months)).toBe(day))
})
