import { instantOf, readDocument, Term } from '@wickerframe/core'

const read = (json: unknown): Term => {
  const term = readDocument(Term, json)
  if (!term.ok) throw new Error(`demo term: ${JSON.stringify(term.problems)}`)
  return term.value
}

const zone = { timeZone: 'America/Halifax' }

/** The terms of Kestrel Sound Maritime College, in order. */
export const terms: readonly Term[] = [
  read({
    code: 'autumn-2026',
    title: 'Autumn 2026',
    ...zone,
    firstDay: '2026-08-31',
    lastDay: '2026-12-18',
    breaks: [{ name: 'Fall Pause', first: '2026-11-09', last: '2026-11-13' }],
    holidays: [
      { name: 'Labour Day', date: '2026-09-07' },
      { name: 'Thanksgiving', date: '2026-10-12' },
    ],
    otherDates: [
      { name: 'Last day to withdraw', date: '2026-10-30' },
      { name: 'Exam week begins', date: '2026-12-14' },
    ],
    sessions: [
      { code: 'first-half', title: 'First half', firstDay: '2026-08-31', lastDay: '2026-10-23' },
      { code: 'seven-weeks', title: 'Seven weeks', firstDay: '2026-08-31', lastDay: '2026-10-16' },
      { code: 'second-half', title: 'Second half', firstDay: '2026-10-26', lastDay: '2026-12-18' },
    ],
  }),
  read({
    code: 'winter-short-2027',
    title: 'Winter Short 2027',
    ...zone,
    firstDay: '2027-01-04',
    lastDay: '2027-02-26',
  }),
  read({
    code: 'spring-2027',
    title: 'Spring 2027',
    ...zone,
    firstDay: '2027-01-11',
    lastDay: '2027-04-30',
    breaks: [{ name: 'Ice Week', first: '2027-03-01', last: '2027-03-05' }],
    breakWeeksCount: false,
  }),
  read({
    code: 'summer-seven-2027',
    title: 'Summer Seven 2027',
    ...zone,
    firstDay: '2027-05-31',
    lastDay: '2027-07-16',
  }),
]

/** The demo's one today: Wednesday of week 3 of Autumn 2026. */
export const demoToday = '2026-09-16'
export const demoTimeZone = zone.timeZone
/**
 * How far the college's clock is moved, in seconds, for it to be nine in the morning of the demo's day.
 * @param machine the machine's time, in milliseconds since 1970
 */
export const demoClockOffset = (machine: number): number =>
  Math.round((Date.parse(instantOf(demoToday, '09:00', demoTimeZone)) - machine) / 1000)
