import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addDays,
  dateOfDayNumber,
  dayNumber,
  monthOfWord,
  weekdayOfWord,
} from '../../calendar/index.ts'
import { rangesNamed } from '../index.ts'
import { propertyRuns } from '../../testing/propertyRuns.testing.ts'

// Reference: the Unicode CLDR as the platform carries it (Intl), for the three languages of our word lists.
const locales = ['en-CA', 'en-US', 'en-GB', 'fr-CA', 'fr-FR', 'es-ES', 'es-MX'] as const
const utc = (date: string) => new Date(`${date}T12:00:00Z`)
const bare = (word: string) => word.toLowerCase().replace(/\.$/, '')

describe('words of dates', () => {
  it.each(locales)('are all those of the CLDR in %s', (locale) => {
    for (const width of ['long', 'short'] as const) {
      const month = new Intl.DateTimeFormat(locale, { month: width, timeZone: 'UTC' })
      const weekday = new Intl.DateTimeFormat(locale, { weekday: width, timeZone: 'UTC' })
      for (let i = 1; i <= 12; i++) {
        const word = bare(month.format(utc(`2026-${String(i).padStart(2, '0')}-15`)))
        expect([word, monthOfWord(word)]).toEqual([word, i])
      }
      // 7 September 2026 is a Monday.
      for (let i = 1; i <= 7; i++) {
        const word = bare(weekday.format(utc(addDays('2026-09-06', i))))
        // French and Spanish shorten both mars or marzo and mardi or martes to mar: in a name of a week it is the month.
        if (word === 'mar') expect(monthOfWord(word)).toBe(3)
        else expect([word, weekdayOfWord(word)]).toEqual([word, i])
      }
    }
  })
})

describe('ranges of dates', () => {
  it('are read as the CLDR writes them, in every language and width', () => {
    const days = fc.integer({ min: dayNumber('2026-08-31'), max: dayNumber('2026-12-11') })
    fc.assert(
      fc.property(
        fc.constantFrom(...locales),
        fc.constantFrom('long' as const, 'short' as const),
        days,
        fc.integer({ min: 1, max: 13 }),
        (locale, month, from, length) => {
          const [first, last] = [dateOfDayNumber(from), dateOfDayNumber(from + length)]
          const written = new Intl.DateTimeFormat(locale, {
            month,
            day: 'numeric',
            timeZone: 'UTC',
          }).formatRange(utc(first), utc(last))
          expect([
            written,
            rangesNamed(written, '2026-09-01').map(({ first, last }) => [first, last]),
          ]).toEqual([written, [[first, last]]])
        },
      ),
      propertyRuns(),
    )
  })
})
