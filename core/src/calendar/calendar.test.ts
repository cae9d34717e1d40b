import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import moment from 'moment-timezone'
import { DateTime } from 'luxon'
import { readDocument } from '../document/index.ts'
import {
  addDays,
  dateOfDayNumber,
  datesMentioned,
  dayNumber,
  formatDate,
  formatDateRange,
  instantOf,
  instructionalWeeks,
  isoWeekOf,
  isPlainDate,
  localDateOf,
  resolveOffset,
  Term,
  weekdayIndex,
} from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const term = (more: object = {}): Term => {
  const read = readDocument(Term, {
    code: 'autumn-2026',
    title: 'Autumn 2026',
    timeZone: 'America/Halifax',
    firstDay: '2026-08-31',
    lastDay: '2026-12-18',
    ...more,
  })
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}
const pause = { name: 'Fall Pause', first: '2026-11-09', last: '2026-11-13' }

describe('plain dates', () => {
  it('count days as luxon does', () => {
    fc.assert(
      fc.property(fc.integer({ min: -100_000, max: 100_000 }), (day) => {
        const date = dateOfDayNumber(day)
        expect(dayNumber(date)).toBe(day)
        expect(date).toBe(DateTime.fromMillis(day * 86_400_000, { zone: 'utc' }).toISODate())
        expect(weekdayIndex(date) + 1).toBe(DateTime.fromISO(date).weekday)
      }),
    )
  })
  it('refuse days that do not exist', () => {
    expect(isPlainDate('2026-02-29')).toBe(false)
    expect(isPlainDate('2028-02-29')).toBe(true)
  })
})

describe('ISO 8601 weeks', () => {
  it('are those of luxon and of moment, two reference libraries', () => {
    fc.assert(
      fc.property(fc.integer({ min: -30_000, max: 60_000 }), (day) => {
        const date = dateOfDayNumber(day)
        const { year, week } = isoWeekOf(date)
        const luxon = DateTime.fromISO(date)
        expect([year, week]).toEqual([luxon.weekYear, luxon.weekNumber])
        expect([year, week]).toEqual([moment.utc(date).isoWeekYear(), moment.utc(date).isoWeek()])
      }),
    )
  })
})

describe('instructional weeks', () => {
  it('of Autumn 2026 are sixteen, the pause week among them', () => {
    const weeks = instructionalWeeks({ term: term({ breaks: [pause] }) })
    expect(weeks).toHaveLength(16)
    expect(weeks[2]).toMatchObject({ number: 3, first: '2026-09-14', last: '2026-09-20' })
    expect(weeks[10]).toMatchObject({ number: 11, breakName: 'Fall Pause' })
    expect(weeks[15]).toMatchObject({ first: '2026-12-14', last: '2026-12-18' })
  })
  it.each([
    [
      'two breaks that adjoin',
      [
        { ...pause, last: '2026-11-11' },
        { name: 'Regatta', first: '2026-11-12', last: '2026-11-15' },
      ],
      [],
      'Fall Pause and Regatta',
    ],
    [
      'a break and a holiday',
      [{ ...pause, last: '2026-11-12' }],
      [{ name: 'Founders’ Day', date: '2026-11-13' }],
      'Fall Pause and Founders’ Day',
    ],
    [
      'a break that lies over a holiday',
      [pause],
      [{ name: 'Founders’ Day', date: '2026-11-13' }],
      'Fall Pause',
    ],
    ['a break that leaves a day', [{ ...pause, last: '2026-11-12' }], [], null],
    [
      'holidays alone',
      [],
      ['09', '10', '11', '12', '13'].map((day) => ({ name: 'Feast', date: `2026-11-${day}` })),
      null,
    ],
  ])('%s: whether they empty the week', (_, breaks, holidays, name) => {
    expect(instructionalWeeks({ term: term({ breaks, holidays }) })[10]?.breakName).toBe(name)
  })
  it('skip a break that takes no number', () => {
    const weeks = instructionalWeeks({ term: term({ breaks: [pause], breakWeeksCount: false }) })
    expect(weeks).toHaveLength(15)
    expect(weeks[10]).toMatchObject({ number: 11, first: '2026-11-16' })
  })
  it('start on the weekday the institution says', () => {
    expect(instructionalWeeks({ term: term({ weekStartsOn: 'sunday' }) })[1]?.first).toBe(
      '2026-09-06',
    )
  })
  it('treat a short first week as told: counted, joined, or week 0', () => {
    const short = { firstDay: '2026-09-03' }
    expect(instructionalWeeks({ term: term(short) })[0]).toMatchObject({
      number: 1,
      first: '2026-09-03',
      last: '2026-09-06',
    })
    expect(
      instructionalWeeks({ term: term({ ...short, shortFirstWeek: 'joins-next' }) })[0],
    ).toMatchObject({ number: 1, first: '2026-09-03', last: '2026-09-13' })
    expect(
      instructionalWeeks({ term: term({ ...short, shortFirstWeek: 'is-week-0' }) })[0],
    ).toMatchObject({ number: 0, first: '2026-09-03' })
  })
  it('of a session run between its own days', () => {
    const withSession = term({
      sessions: [
        { code: 'half', title: 'Second half', firstDay: '2026-10-26', lastDay: '2026-12-18' },
      ],
    })
    expect(
      instructionalWeeks({ term: withSession, session: 'half' }).map((week) => week.first),
    ).toEqual([
      '2026-10-26',
      '2026-11-02',
      '2026-11-09',
      '2026-11-16',
      '2026-11-23',
      '2026-11-30',
      '2026-12-07',
      '2026-12-14',
    ])
  })
  it('never overlap and leave no day of the term out, whatever the term', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20_000, max: 22_000 }),
        fc.integer({ min: 10, max: 200 }),
        (start, length) => {
          const weeks = instructionalWeeks({
            term: term({
              firstDay: dateOfDayNumber(start),
              lastDay: dateOfDayNumber(start + length),
            }),
          })
          expect(weeks[0]?.first).toBe(dateOfDayNumber(start))
          expect(weeks.at(-1)?.last).toBe(dateOfDayNumber(start + length))
          for (let i = 1; i < weeks.length; i++)
            expect(weeks[i]?.first).toBe(addDays(weeks[i - 1]?.last ?? '', 1))
        },
      ),
    )
  })
})

describe('instants', () => {
  // IANA time zone database: America/Halifax leaves daylight time on 1 November 2026 and enters it on 8 March 2026.
  it('take the first of two where a local time occurs twice (RFC 5545, 3.3.5)', () => {
    expect(instantOf('2026-11-01', '01:30', 'America/Halifax')).toBe('2026-11-01T04:30:00Z')
  })
  it('take the offset before the gap where a local time is skipped (RFC 5545, 3.3.5)', () => {
    expect(instantOf('2026-03-08', '02:30', 'America/Halifax')).toBe('2026-03-08T06:30:00Z')
  })
  it('are right south of the equator, where autumn changes the other way', () => {
    expect(instantOf('2026-04-05', '02:30', 'Australia/Sydney')).toBe('2026-04-04T15:30:00Z')
    expect(instantOf('2026-10-04', '02:30', 'Australia/Sydney')).toBe('2026-10-03T16:30:00Z')
  })
  it('agree with the platform’s own IANA data away from changes, and come back to their date', () => {
    const format = new Intl.DateTimeFormat('en-CA', {
      timeZone: 'America/Halifax',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    })
    fc.assert(
      fc.property(
        fc.integer({ min: 20_400, max: 20_900 }),
        fc.integer({ min: 4, max: 23 }),
        (day, hour) => {
          const date = dateOfDayNumber(day)
          const time = `${String(hour).padStart(2, '0')}:30`
          const instant = instantOf(date, time, 'America/Halifax')
          expect(format.format(new Date(instant)).replace(', ', ' ')).toBe(`${date} ${time}`)
          expect(localDateOf(instant, 'America/Halifax')).toBe(date)
        },
      ),
    )
  })
  // moment-timezone carries the IANA data itself, apart from the data of Node.js that luxon reads.
  it('agree with IANA data from another library, in zones north and south of the equator, wherever a local time occurs once', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(
          'America/Halifax',
          'Australia/Sydney',
          'America/Santiago',
          'Europe/Lisbon',
          'Asia/Kolkata',
          'America/St_Johns',
          'UTC',
        ),
        fc.integer({ min: 19_000, max: 22_000 }),
        fc.integer({ min: 0, max: 95 }),
        (zone, day, quarter) => {
          const date = dateOfDayNumber(day)
          const time = `${String(Math.floor(quarter / 4)).padStart(2, '0')}:${String((quarter % 4) * 15).padStart(2, '0')}`
          const reference = moment.tz(`${date} ${time}`, 'YYYY-MM-DD HH:mm', zone)
          // Skipped times are moved by that library, and doubled ones may be meant either way: RFC 5545 decides them, above.
          const skipped = reference.format('YYYY-MM-DD HH:mm') !== `${date} ${time}`
          const doubled = [-60, -30, 30, 60].some(
            (minutes) =>
              reference.clone().add(minutes, 'minutes').format('YYYY-MM-DD HH:mm') ===
              `${date} ${time}`,
          )
          if (skipped || doubled) return
          expect(instantOf(date, time, zone)).toBe(
            reference.utc().format('YYYY-MM-DD[T]HH:mm:ss[Z]'),
          )
        },
      ),
      propertyRuns(),
    )
  })
  it('follow offsets across the clock change: 23:59 stays 23:59', () => {
    const weeks = instructionalWeeks({ term: term() })
    const at = (week: number) =>
      resolveOffset(
        { from: 'week-end', days: 0, time: '23:59' },
        weeks[week - 1] ?? null,
        weeks,
        term(),
      )
    expect(at(8)).toBe('2026-10-26T02:59:00Z')
    expect(at(9)).toBe('2026-11-02T03:59:00Z')
    expect(
      resolveOffset({ from: 'week-start', week: 40, days: 0, time: '00:00' }, null, weeks, term()),
    ).toBeNull()
  })
})

describe('dates in words', () => {
  it('are written from our own tables', () => {
    expect(formatDate('2026-09-05', 'EEE d MMMM yyyy, MM/dd/yy')).toBe(
      'Sat 5 September 2026, 09/05/26',
    )
    expect(formatDateRange('2026-09-14', '2026-09-20', 'MMM d – MMM d')).toBe('Sep 14 – Sep 20')
  })
  it('name the month once where the style does, and twice where the range crosses into another', () => {
    expect(formatDateRange('2026-09-14', '2026-09-20', 'MMM d–d')).toBe('Sep 14–20')
    expect(formatDateRange('2026-09-28', '2026-10-04', 'MMM d–d')).toBe('Sep 28–Oct 4')
    expect(formatDateRange('2026-09-28', '2026-10-04', 'd–d MMM')).toBe('28 Sep–4 Oct')
  })
  it('are found in French and Spanish', () => {
    expect(
      datesMentioned('du 14 septembre au 1er octobre; el 20 de septiembre de 2026; le 5 févr.').map(
        (said) => [said.month, said.day, said.year],
      ),
    ).toEqual([
      [9, 14, null],
      [10, 1, null],
      [9, 20, 2026],
      [2, 5, null],
    ])
  })
  it('are found as people write them, and other numbers are not', () => {
    expect(
      datesMentioned('Due Sept. 14th, see you 3 March 2027 or 2026-10-01; page 12, May I go').map(
        (said) => [said.month, said.day, said.year],
      ),
    ).toEqual([
      [9, 14, null],
      [3, 3, 2027],
      [10, 1, 2026],
    ])
  })
})
