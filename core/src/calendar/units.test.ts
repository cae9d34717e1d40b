import { describe, expect, it } from 'vitest'
import { readDocument } from '../document/index.ts'
import {
  availabilityWindow,
  calendarDocument,
  classDaysOf,
  evenUnits,
  halvesOf,
  instructionalWeeks,
  resolveOffset,
  spanningTerm,
  Term,
  unitStretches,
  Unit,
} from './index.ts'

const termOf = (more: object = {}): Term => {
  const read = readDocument(Term, {
    code: 'autumn-2026',
    title: 'Autumn 2026',
    timeZone: 'America/Halifax',
    firstDay: '2026-08-31',
    lastDay: '2026-12-18',
    breaks: [{ name: 'Fall Pause', first: '2026-11-09', last: '2026-11-13' }],
    holidays: [{ name: 'Labour Day', date: '2026-09-07' }],
    otherDates: [{ name: 'Last day to withdraw', date: '2026-10-30' }],
    ...more,
  })
  if (!read.ok) throw new Error(JSON.stringify(read.problems))
  return read.value
}
const term = termOf()
const weeks = instructionalWeeks({ term })
const week = (number: number) => {
  const found = weeks.find((week) => week.number === number)
  if (!found) throw new Error(`there is no week ${number}`)
  return found
}

describe('class days', () => {
  it('are the meeting days that are free of breaks and holidays', () => {
    expect(classDaysOf(week(3), term).map((day) => day.date)).toEqual([
      '2026-09-14',
      '2026-09-15',
      '2026-09-16',
      '2026-09-17',
      '2026-09-18',
    ])
    expect(
      classDaysOf(week(2), term, ['monday', 'wednesday']).map((day) => [day.date, day.ofWeek]),
    ).toEqual([['2026-09-09', 1]])
    expect(classDaysOf(week(11), term)).toEqual([])
  })
  it('make halves of a week for a class that meets twice', () => {
    expect(halvesOf(week(3), term, ['tuesday', 'thursday'])).toEqual([
      { half: 'A', first: '2026-09-14', last: '2026-09-16' },
      { half: 'B', first: '2026-09-17', last: '2026-09-20' },
    ])
    expect(halvesOf(week(3), term, ['tuesday'])).toEqual([])
    const short = instructionalWeeks({ term: termOf({ firstDay: '2026-09-03' }) })[0]
    expect(short && halvesOf(short, term, ['monday', 'thursday'])).toEqual([
      { half: 'B', first: '2026-09-03', last: '2026-09-06' },
    ])
  })
})

describe('units', () => {
  it('are dealt out evenly, and earlier ones take what is over', () => {
    expect(evenUnits(weeks, 4).map((unit) => [unit.firstWeek, unit.lastWeek])).toEqual([
      [1, 4],
      [5, 8],
      [9, 12],
      [13, 16],
    ])
    expect(evenUnits(weeks.slice(0, 15), 4).map((unit) => [unit.firstWeek, unit.lastWeek])).toEqual(
      [
        [1, 4],
        [5, 8],
        [9, 12],
        [13, 15],
      ],
    )
    expect(evenUnits(weeks.slice(0, 7), 4).map((unit) => [unit.firstWeek, unit.lastWeek])).toEqual([
      [1, 2],
      [3, 4],
      [5, 6],
      [7, 7],
    ])
  })
  it('hold weeks and days, computed from what somebody decided', () => {
    const [byWeeks, byDays] = unitStretches(
      [
        { number: 1, firstWeek: 1, lastWeek: 2 },
        { number: 2, firstDay: '2026-09-16', lastDay: '2026-09-29', title: 'Compass' },
      ],
      weeks,
      term,
      ['wednesday'],
    )
    expect(byWeeks).toMatchObject({ first: '2026-08-31', last: '2026-09-13', hasWeekLevel: true })
    expect(byWeeks?.days.map((day) => day.date)).toEqual(['2026-09-02', '2026-09-09'])
    expect(byDays).toMatchObject({ title: 'Compass', first: '2026-09-16', last: '2026-09-29' })
    expect(byDays?.weeks.map((week) => [week.number, week.first, week.last])).toEqual([
      [3, '2026-09-16', '2026-09-20'],
      [4, '2026-09-21', '2026-09-27'],
      [5, '2026-09-28', '2026-09-29'],
    ])
  })
  it('of a single short week go without the week level', () => {
    expect(
      unitStretches([{ number: 1, firstDay: '2026-09-14', lastDay: '2026-09-16' }], weeks, term)[0],
    ).toMatchObject({ hasWeekLevel: false })
    expect(unitStretches([{ number: 1, firstWeek: 3, lastWeek: 3 }], weeks, term)[0]).toMatchObject(
      { hasWeekLevel: true },
    )
  })
  it.each([
    [{ number: 1 }],
    [{ number: 1, firstWeek: 3, lastWeek: 2 }],
    [{ number: 1, firstWeek: 1, lastDay: '2026-09-16' }],
    [{ number: 1, firstDay: '2026-09-17', lastDay: '2026-09-16' }],
  ])('%j is no unit', (unit) => {
    expect(Unit.safeParse(unit).success).toBe(false)
  })
})

describe('one template, many lengths', () => {
  it.each([16, 15, 10, 8, 7])('%i weeks', (count) => {
    expect(instructionalWeeks({ term, count }).map(({ number }) => number)).toEqual(
      Array.from({ length: count }, (_, i) => i + 1),
    )
  })
  it('a preparatory week 0 lies before the first day', () => {
    expect(
      instructionalWeeks({ term: termOf({ preparatoryWeek: true }) }).slice(0, 2),
    ).toMatchObject([
      { number: 0, first: '2026-08-24', last: '2026-08-30' },
      { number: 1, first: '2026-08-31' },
    ])
  })
  it('a course that spans two terms is numbered on, with the breaks of both', () => {
    const spring = termOf({
      code: 'spring-2027',
      title: 'Spring 2027',
      firstDay: '2027-01-11',
      lastDay: '2027-02-05',
      breaks: [],
      holidays: [{ name: 'Ice Day', date: '2027-01-20' }],
      otherDates: [],
    })
    const both = instructionalWeeks({ term, nextTerm: spring })
    expect(both).toHaveLength(20)
    expect(both[16]).toMatchObject({ number: 17, first: '2027-01-11' })
    const joined = spanningTerm(term, spring)
    const ice = both[17]
    expect(ice && classDaysOf(ice, joined).map((day) => day.date)).not.toContain('2027-01-20')
    expect(joined).toMatchObject({ firstDay: '2026-08-31', lastDay: '2027-02-05' })
  })
})

describe('offsets', () => {
  it('count from class days and named dates', () => {
    expect(
      resolveOffset(
        { from: 'class-day', classDay: 2, days: 0, time: '09:00' },
        week(3),
        weeks,
        term,
        ['tuesday', 'thursday'],
      ),
    ).toBe('2026-09-17T12:00:00Z')
    expect(
      resolveOffset(
        { from: 'class-day', classDay: 3, days: 0, time: '09:00' },
        week(3),
        weeks,
        term,
        ['tuesday', 'thursday'],
      ),
    ).toBeNull()
    expect(
      resolveOffset(
        { from: 'named-date', name: 'Last day to withdraw', days: -1, time: '12:00' },
        null,
        weeks,
        term,
      ),
    ).toBe('2026-10-29T15:00:00Z')
    expect(
      resolveOffset(
        { from: 'named-date', name: 'Regatta', days: 0, time: '12:00' },
        null,
        weeks,
        term,
      ),
    ).toBeNull()
  })
  it('give the window of a course, across the clock change', () => {
    expect(
      availabilityWindow(weeks, 'America/Halifax', { opensDaysBefore: 3, closesDaysAfter: 21 }),
    ).toEqual({ opensAt: '2026-08-28T03:00:00Z', closesAt: '2027-01-09T03:59:00Z' })
    expect(
      availabilityWindow([], 'America/Halifax', { opensDaysBefore: 3, closesDaysAfter: 21 }),
    ).toBeNull()
  })
})

describe('the calendar as a document', () => {
  it('nests days in weeks and weeks in units', () => {
    const document = calendarDocument({
      term,
      count: 8,
      units: (all) => evenUnits(all, 2),
      meetingDays: ['tuesday', 'thursday'],
      availability: { opensDaysBefore: 0, closesDaysAfter: 21 },
    })
    expect(document.units.map((unit) => unit.weeks)).toEqual([
      [1, 2, 3, 4],
      [5, 6, 7, 8],
    ])
    expect(document.units.flatMap((unit) => unit.classDays)).toEqual(
      document.days.map((day) => day.date),
    )
    expect(document.weeks.flatMap((week) => week.classDays)).toEqual(
      document.days.map((day) => day.date),
    )
    expect(document.weeks[2]?.halves.map((half) => half.half)).toEqual(['A', 'B'])
  })
})
