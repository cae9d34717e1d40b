import * as fc from 'fast-check'
import moment from 'moment-timezone'
import { describe, expect, it } from 'vitest'
import {
  addDays,
  dateOfDayNumber,
  dayNumber,
  instructionalWeeks,
  localDateOf,
  resolveOffset,
  weekdays,
  type Offset,
  type Term,
  type Week,
} from './index.ts'

const term = (more: Partial<Term> = {}): Term => ({
  code: 'autumn',
  title: 'Autumn',
  timeZone: 'UTC',
  firstDay: '2026-09-02',
  lastDay: '2026-12-10',
  weekStartsOn: 'monday',
  preparatoryWeek: false,
  shortFirstWeek: 'counts',
  shortLastWeek: 'counts',
  breakWeeksCount: false,
  breaks: [],
  holidays: [],
  sessions: [],
  otherDates: [],
  ...more,
})
const on = (offset: Partial<Offset>, own: Week | null, of = term()): string | null => {
  const instant = resolveOffset(
    { from: 'weekday', days: 0, time: '12:00', ...offset },
    own,
    instructionalWeeks({ term: of }),
    of,
  )
  return instant && localDateOf(instant, of.timeZone)
}

describe('a weekday of a week', () => {
  // Weekdays as moment.js has them (isoWeekday), a library of its own making.
  it('is that day, in that week, wherever weeks begin', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: dayNumber('2020-01-01'), max: dayNumber('2035-12-31') }),
        fc.constantFrom(...weekdays),
        fc.constantFrom(...weekdays),
        fc.nat(12),
        (first, weekStartsOn, weekday, index) => {
          const firstDay = dateOfDayNumber(first)
          const of = term({ weekStartsOn, firstDay, lastDay: addDays(firstDay, 100) })
          const week = instructionalWeeks({ term: of })[index + 1]
          if (!week) throw new Error('a term of a hundred days has fourteen weeks')
          const day = on({ weekday }, week, of)
          expect(moment.utc(day).isoWeekday()).toBe(weekdays.indexOf(weekday) + 1)
          expect(day !== null && week.first <= day && day <= week.last).toBe(true)
          expect(on({ weekday, days: 7 }, week, of)).toBe(addDays(day ?? '', 7))
        },
      ),
    )
  })
  const [first] = instructionalWeeks({ term: term() })
  const last = instructionalWeeks({ term: term() }).at(-1)
  it('that a short week does not have is the nearest that it has', () => {
    expect([first?.first, first?.last]).toEqual(['2026-09-02', '2026-09-06'])
    expect([last?.first, last?.last]).toEqual(['2026-12-07', '2026-12-10'])
    expect(on({ weekday: 'monday' }, first ?? null)).toBe('2026-09-02')
    expect(on({ weekday: 'sunday' }, first ?? null)).toBe('2026-09-06')
    expect(on({ weekday: 'monday' }, last ?? null)).toBe('2026-12-07')
    expect(on({ weekday: 'sunday' }, last ?? null)).toBe('2026-12-10')
    expect(on({ weekday: 'sunday', week: 15 }, null)).toBe('2026-12-10')
  })
  it('of a unit of several weeks is that of its last', () => {
    const unit = { ...first, last: '2026-09-20' } as Week
    expect(on({ weekday: 'sunday' }, unit)).toBe('2026-09-20')
    expect(on({ weekday: 'wednesday' }, unit)).toBe('2026-09-16')
  })
  it('is kept to the end of a session', () => {
    const of = term({
      sessions: [{ code: 'A', title: 'First half', firstDay: '2026-09-02', lastDay: '2026-10-20' }],
    })
    const weeks = instructionalWeeks({ term: of, session: 'A' })
    const offset = { from: 'weekday', weekday: 'sunday', days: 0, time: '23:59' } as const
    expect(resolveOffset(offset, weeks.at(-1) ?? null, weeks, of)).toBe('2026-10-20T23:59:00Z')
  })
  it('is nowhere outside the weeks', () => {
    expect(on({ weekday: 'sunday' }, null)).toBeNull()
    expect(on({ weekday: 'sunday', week: 40 }, first ?? null)).toBeNull()
  })
})

describe('a day of a week', () => {
  const last = instructionalWeeks({ term: term() }).at(-1) ?? null
  it('that a short week does not reach is its last; what is counted beyond a week goes beyond it', () => {
    const day = (days: number) => on({ from: 'week-start', days }, last)
    expect([0, 3, 4, 6, 7].map(day)).toEqual([
      '2026-12-07',
      '2026-12-10',
      '2026-12-10',
      '2026-12-10',
      '2026-12-14',
    ])
    expect(on({ from: 'week-end', days: 2 }, last)).toBe('2026-12-12')
  })
})
