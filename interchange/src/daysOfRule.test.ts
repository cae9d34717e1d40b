import * as fc from 'fast-check'
import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import { addDays } from '@wickerframe/core'
import { propertyRuns } from '@wickerframe/core/testing'
import { dateOf, daysOfRule, Steps } from './daysOfRule.ts'

const days = (rule: string, start: string, until: string, from = start) =>
  daysOfRule(ICAL.Recur.fromString(rule), start, from, until, new Steps())
/** What ical.js, a library of its own, finds from the start on. */
const reference = (rule: string, start: string, until: string): string[] => {
  const bounded = ICAL.Recur.fromString(rule)
  const last = bounded.until ? dateOf(bounded.until) : until
  bounded.until = ICAL.Time.fromDateString(last < until ? last : until)
  const iterator = bounded.iterator(ICAL.Time.fromDateString(start))
  const found: string[] = []
  for (;;) {
    const next = iterator.next() as ICAL.Time | null
    if (!next) return found
    found.push(dateOf(next))
  }
}

// RFC 5545, section 3.8.5.3, its examples with their dates, as whole days; written down from memory.
describe('the examples of RFC 5545', () => {
  it.each<[string, string, string[]]>([
    [
      'FREQ=DAILY;INTERVAL=10;COUNT=5',
      '1997-09-02',
      ['1997-09-02', '1997-09-12', '1997-09-22', '1997-10-02', '1997-10-12'],
    ],
    [
      'FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH',
      '1997-09-02',
      [
        '09-02',
        '09-04',
        '09-09',
        '09-11',
        '09-16',
        '09-18',
        '09-23',
        '09-25',
        '09-30',
        '10-02',
      ].map((day) => `1997-${day}`),
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
      '1997-09-02',
      ['09-02', '09-04', '09-16', '09-18', '09-30', '10-02', '10-14', '10-16'].map(
        (day) => `1997-${day}`,
      ),
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO',
      '1997-08-05',
      ['1997-08-05', '1997-08-10', '1997-08-19', '1997-08-24'],
    ],
    [
      'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU',
      '1997-08-05',
      ['1997-08-05', '1997-08-17', '1997-08-19', '1997-08-31'],
    ],
    [
      'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO',
      '1997-09-22',
      ['1997-09-22', '1997-10-20', '1997-11-17', '1997-12-22', '1998-01-19', '1998-02-16'],
    ],
    [
      'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8',
      '1996-11-05',
      ['1996-11-05', '2000-11-07', '2004-11-02'],
    ],
  ])('%s from %s', (rule, start, wanted) => {
    expect(days(rule, start, '2005-12-31').slice(0, wanted.length)).toEqual(wanted)
  })
})

const named = fc.subarray(['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'], { minLength: 1 })
const rules = fc
  .record({
    freq: fc.constantFrom('DAILY', 'WEEKLY'),
    interval: fc.integer({ min: 1, max: 20 }),
    byday: fc.option(named),
    bymonth: fc.option(fc.subarray([1, 2, 3, 6, 9, 10, 12], { minLength: 2 })),
    wkst: fc.constantFrom('MO', 'SU', 'WE'),
    count: fc.option(fc.integer({ min: 1, max: 40 })),
  })
  .map(({ freq, interval, byday, bymonth, wkst, count }) =>
    [
      `FREQ=${freq};INTERVAL=${interval};WKST=${wkst}`,
      ...(byday ? [`BYDAY=${byday.join()}`] : []),
      ...(bymonth ? [`BYMONTH=${bymonth.join()}`] : []),
      ...(count === null ? [] : [`COUNT=${count}`]),
    ].join(';'),
  )

describe('rules that repeat by day or week', () => {
  it('give the days that a library gives, wherever one begins to look', () => {
    fc.assert(
      fc.property(rules, fc.nat(1500), fc.nat(500), fc.nat(300), (rule, at, more, length) => {
        // A start that the rule itself does not name is taken in different ways by readers, so it is one that it names.
        const [start] = days(
          rule.replace(/;COUNT=\d+/, ''),
          addDays('2019-01-01', at),
          '2032-12-31',
        )
        if (!start) return
        const from = addDays(start, more)
        const until = addDays(from, length)
        expect(days(rule, start, until, from).filter((date) => date >= from)).toEqual(
          reference(rule, start, until).filter((date) => date >= from),
        )
      }),
      propertyRuns(),
    )
  })
  it.each([
    'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=31',
    'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=31;COUNT=3',
    'FREQ=WEEKLY;BYDAY=MO;BYSETPOS=5',
    'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30',
    'FREQ=YEARLY;INTERVAL=4;BYMONTH=2;BYMONTHDAY=29',
    'FREQ=MONTHLY;BYMONTHDAY=31;BYMONTH=4',
    'FREQ=MONTHLY;BYDAY=6MO',
    'FREQ=YEARLY;BYYEARDAY=366;BYMONTH=3',
    'FREQ=SECONDLY',
  ])('that never hold come to an end: %s', (rule) => {
    for (const start of ['1900-01-01', '2025-03-02']) {
      let found: string[] = []
      try {
        found = days(rule, start, '2027-12-31', '2026-08-31')
      } catch {
        // The library refuses some of them; the event is left out then.
      }
      expect(found.filter((date) => date >= '2026-08-31')).toEqual([])
    }
  })
})
