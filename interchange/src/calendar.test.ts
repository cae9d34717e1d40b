import { readFileSync } from 'node:fs'
import ical from 'node-ical'
import { describe, expect, it } from 'vitest'
import {
  expandCourse,
  Facts,
  instructionalWeeks,
  isModule,
  newItem,
  readDocument,
  Template,
} from '@wickerframe/core'
import { courseCalendar, readFreeDays, termCalendar } from './index.ts'

// node-ical is a reader of its own: it shares no code with ical.js, which writes and reads for us.
const eventsOf = (text: string) =>
  Object.values(ical.sync.parseICS(text)).filter((component) => component.type === 'VEVENT')
const day = (date: Date) =>
  `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`
const stampedAt = '2026-08-20T12:00:00Z'
const file = (...lines: string[]) =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test//EN', ...lines, 'END:VCALENDAR', ''].join(
    '\r\n',
  )
const event = (...lines: string[]) => [
  'BEGIN:VEVENT',
  `UID:${lines.join('').length}@example.com`,
  'DTSTAMP:19970901T130000Z',
  ...lines,
  'END:VEVENT',
]
const example = (name: string): unknown =>
  JSON.parse(readFileSync(new URL(`../../docs/schema/examples/${name}`, import.meta.url), 'utf8'))
const facts = readDocument(Facts, example('1-facts.json'))
const template = readDocument(Template, example('1-template.json'))
if (!facts.ok || !template.ok) throw new Error('the example documents cannot be read')
const autumn = facts.value.term

describe('a term as a calendar file', () => {
  const text = termCalendar(autumn, instructionalWeeks({ term: autumn }), stampedAt)
  it('is accepted by another reader, with every week on its days', () => {
    const events = eventsOf(text)
    const week = events.find((event) => event.summary === 'Week 3')
    expect([week && day(week.start), week && day(week.end)]).toEqual(['2026-09-14', '2026-09-21'])
    expect(events.filter((event) => /^Week \d+$/.test(event.summary))).toHaveLength(15)
    expect(events.map((event) => event.summary)).toEqual(
      expect.arrayContaining([
        'Fall Pause (week 11)',
        'Labour Day',
        'Last day to withdraw',
        'First half',
      ]),
    )
  })
  it('has one event for each of its own, whatever stands in a name that was kept from before', () => {
    const hostile = {
      ...autumn,
      title: 'Autumn\r\nBEGIN:VEVENT\r\nSUMMARY:Mine\r\nEND:VEVENT',
      holidays: autumn.holidays.map((holiday) => ({
        ...holiday,
        name: `${holiday.name}\nSUMMARY:Mine\u0000`,
      })),
    }
    const weeks = instructionalWeeks({ term: autumn })
    const events = eventsOf(termCalendar(hostile, weeks, stampedAt))
    expect(events).toHaveLength(eventsOf(termCalendar(autumn, weeks, stampedAt)).length)
    expect(events.filter((event) => event.summary === 'Mine')).toEqual([])
  })
  it('has lines of at most 75 octets, ended by CRLF (RFC 5545, 3.1)', () => {
    for (const line of text.split('\r\n'))
      expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75)
    expect(text.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/)
  })
  it('gives back the holidays and breaks it was made from', () => {
    const read = readFreeDays(text, autumn.firstDay, autumn.lastDay)
    expect(read.ok && read.value.holidays.map((holiday) => holiday.name)).toEqual(
      expect.arrayContaining(['Labour Day', 'Thanksgiving']),
    )
    expect(read.ok && read.value.breaks).toContainEqual({
      name: 'Fall Pause',
      first: '2026-11-09',
      last: '2026-11-13',
    })
  })
})

describe('a course as a calendar file', () => {
  const expansion = expandCourse({ template: template.value, facts: facts.value })
  if (!expansion.ok) throw new Error('the demo course does not expand')
  it('says what is due when, to the minute, across the clock change', () => {
    const events = eventsOf(courseCalendar(expansion.value, 'kc-1001', stampedAt))
    const due = (name: RegExp) =>
      events.find((event) => name.test(event.summary))?.start.toISOString()
    expect(due(/Assignment 4/)).toBe('2026-10-26T02:59:00.000Z')
    expect(due(/Assignment 5/)).toBe('2026-11-09T03:59:00.000Z')
    expect(new Set(events.map((event) => event.uid)).size).toBe(events.length)
    expect(events.filter((event) => event.summary.startsWith('NAV 110')).length).toBe(events.length)
  })
  it('has events with when they begin and end and where they are held; drafts of staff are not in it', () => {
    const own = structuredClone(template.value)
    const week = own.parts.filter(isModule).find((part) => part.repeat !== undefined)
    const lab = newItem('event', 'lab', 'Radar lab {number}')
    lab.settings = {
      due: { from: 'week-start', days: 2, time: '13:30' },
      minutes: 90,
      where: 'Simulator, east wing',
    }
    week?.items.push(lab, { ...lab, key: 'staff-lab', name: 'Trial run', audience: 'staff' })
    const expanded = expandCourse({ template: own, facts: facts.value })
    if (!expanded.ok) throw new Error(JSON.stringify(expanded.problems))
    const events = eventsOf(courseCalendar(expanded.value, 'kc-1001', stampedAt))
    const first = events.find(({ summary }) => summary.endsWith('Radar lab 1'))
    expect([first?.start.toISOString(), first?.end.toISOString(), first?.location]).toEqual([
      // Wednesday of the first week, 13:30 in Halifax (UTC-3).
      '2026-09-02T16:30:00.000Z',
      '2026-09-02T18:00:00.000Z',
      'Simulator, east wing',
    ])
    expect(events.some(({ summary }) => /Trial run/.test(summary))).toBe(false)
  })
})

describe('holidays from a calendar file', () => {
  // RFC 5545, section 3.6.1: the anniversary and the event that is no whole day.
  const anniversary = event(
    'DTSTART;VALUE=DATE:19971102',
    'SUMMARY:Our Blissful Anniversary',
    'TRANSP:TRANSPARENT',
    'CLASS:CONFIDENTIAL',
    'CATEGORIES:ANNIVERSARY,PERSONAL,SPECIAL OCCASION',
    'RRULE:FREQ=YEARLY',
  )
  const review = event(
    'DTSTART:19970903T163000Z',
    'DTEND:19970903T190000Z',
    'SUMMARY:Annual Employee Review',
    'CLASS:PRIVATE',
    'CATEGORIES:BUSINESS,HUMAN RESOURCES',
  )
  it('reads the examples of RFC 5545 as another reader does: a yearly day, and a meeting that is none', () => {
    const text = file(...anniversary, ...review)
    expect(readFreeDays(text, '1997-09-01', '1998-12-31')).toEqual({
      ok: true,
      value: {
        holidays: [
          { name: 'Our Blissful Anniversary', date: '1997-11-02' },
          { name: 'Our Blissful Anniversary', date: '1998-11-02' },
        ],
        breaks: [],
        leftOut: 1,
      },
    })
    const other = eventsOf(text)
    expect(other.map((event) => [event.summary, event.datetype])).toEqual([
      ['Our Blissful Anniversary', 'date'],
      ['Annual Employee Review', 'date-time'],
    ])
    expect(
      other[0]?.rrule
        ?.between(new Date('1998-01-01'), new Date('1998-12-31'))
        .map((date) => date.toISOString().slice(0, 10)),
    ).toEqual(['1998-11-02'])
  })
  // RFC 5545, section 3.6.1: DTEND of a DATE value is the day after the last; and 3.1: folded lines.
  it('takes the end as exclusive, and unfolds lines', () => {
    const text = file(
      ...event(
        'DTSTART;VALUE=DATE:20261109',
        'DTEND;VALUE=DATE:20261114',
        'SUMMARY:Fall',
        '  Pause\\, the long one',
      ),
    )
    expect(readFreeDays(text, '2026-08-31', '2026-12-18')).toMatchObject({
      value: {
        breaks: [{ name: 'Fall Pause, the long one', first: '2026-11-09', last: '2026-11-13' }],
      },
    })
  })
  it('clips to the term and leaves out what lies outside', () => {
    const text = file(
      ...event('DTSTART;VALUE=DATE:20261210', 'DTEND;VALUE=DATE:20270105', 'SUMMARY:Winter'),
      ...event('DTSTART;VALUE=DATE:20250101', 'SUMMARY:Long ago'),
    )
    expect(readFreeDays(text, '2026-08-31', '2026-12-18')).toMatchObject({
      value: { breaks: [{ first: '2026-12-10', last: '2026-12-18' }], holidays: [], leftOut: 1 },
    })
  })
  it.each([
    ['nothing', ''],
    ['something else', 'code,title\nNAV 110,Coastal Navigation\n'],
    ['a card', 'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Nobody\r\nEND:VCARD\r\n'],
    ['half a file', 'BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART;VALUE=DATE:2026'],
    ['too much', `BEGIN:VCALENDAR\r\n${'X-NOISE:y\r\n'.repeat(400_000)}END:VCALENDAR\r\n`],
  ])('%s is refused with a reason', (_, text) => {
    const read = readFreeDays(text, '2026-08-31', '2026-12-18')
    expect(read.ok ? '' : read.problems[0]?.expected).toMatch(/iCalendar/)
  })
  it('ends where a rule never does, and begins at the term where one began long ago', () => {
    const days = (text: string) => readFreeDays(text, '2026-08-31', '2026-12-18')
    const never = event('DTSTART;VALUE=DATE:20260101', 'RRULE:FREQ=DAILY;BYMONTH=2;BYMONTHDAY=31')
    expect(days(file(...never))).toMatchObject({ value: { holidays: [], leftOut: 1 } })
    const daily = event('DTSTART;VALUE=DATE:20200101', 'RRULE:FREQ=DAILY', 'SUMMARY:Open')
    const hundred = days(file(...Array.from({ length: 100 }, () => daily).flat()))
    expect(hundred.ok && hundred.value.holidays.length).toBe(100 * 110)
    const thousands = days(file(...Array.from({ length: 5000 }, () => daily).flat()))
    expect(thousands.ok ? '' : thousands.problems[0]?.found).toMatch(/without number/)
  })
  it('takes a day out (EXDATE) and another in (RDATE)', () => {
    const text = file(
      ...event(
        'DTSTART;VALUE=DATE:20260904',
        'RRULE:FREQ=WEEKLY;COUNT=3',
        'EXDATE;VALUE=DATE:20260911',
        'RDATE;VALUE=DATE:20261001',
        'SUMMARY:Sailing',
      ),
    )
    const read = readFreeDays(text, '2026-08-31', '2026-12-18')
    expect(read.ok && read.value.holidays.map((holiday) => holiday.date)).toEqual([
      '2026-09-04',
      '2026-09-18',
      '2026-10-01',
    ])
  })
  it('survives events that make no sense', () => {
    const text = file(
      ...event('SUMMARY:No start'),
      ...event('DTSTART;VALUE=DATE:20269999', 'SUMMARY:No such day'),
      ...event('DTSTART;VALUE=DATE:20260907', 'SUMMARY:Labour Day', 'RRULE:FREQ=SECONDLY'),
    )
    const read = readFreeDays(text, '2026-08-31', '2026-12-18')
    expect(read.ok).toBe(true)
  })
})
