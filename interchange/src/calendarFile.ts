import ICAL from 'ical.js'
import {
  addDays,
  everyExpected,
  isHeld,
  type ExpectedCourse,
  type ExpectedPart,
  type Term,
  type Week,
} from '@wickerframe/core'

/** One entry of a calendar file: whole days, both included, or an instant (ISO 8601, UTC), with how long it lasts from there. */
interface Entry {
  uid: string
  summary: string
  description?: string
  category: string
  location?: string
  when: { first: string; last: string } | { at: string; minutes?: number }
}

/** Names kept from before they had to be one line write no lines of their own into the file. */
const oneLine = (text: string): string => text.replace(/[\p{Cc}\u2028\u2029]+/gu, ' ')

const host = 'wickerframe.example'

/**
 * Writes entries as an iCalendar file (RFC 5545): days as DATE values with the exclusive end that the standard asks for,
 * instants in UTC, so that no time zone has to travel with them.
 * @param stampedAt when the file is made, ISO 8601
 */
const written = (name: string, entries: readonly Entry[], stampedAt: string): string => {
  const calendar = new ICAL.Component('vcalendar')
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//Wickerframe//Term and course calendars//EN')
  calendar.updatePropertyWithValue('x-wr-calname', oneLine(name))
  const stamp = ICAL.Time.fromJSDate(new Date(stampedAt), true)
  for (const { uid, summary, description, location, category, when } of entries) {
    const event = new ICAL.Component('vevent')
    event.updatePropertyWithValue('uid', `${uid}@${host}`)
    event.updatePropertyWithValue('dtstamp', stamp)
    event.updatePropertyWithValue('summary', oneLine(summary))
    if (description) event.updatePropertyWithValue('description', oneLine(description))
    if (location) event.updatePropertyWithValue('location', oneLine(location))
    event.updatePropertyWithValue('categories', category)
    if ('at' in when) {
      const begins = new Date(when.at)
      event.updatePropertyWithValue('dtstart', ICAL.Time.fromJSDate(begins, true))
      if (when.minutes !== undefined)
        event.updatePropertyWithValue(
          'dtend',
          ICAL.Time.fromJSDate(new Date(begins.getTime() + when.minutes * 60_000), true),
        )
    } else {
      event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(when.first))
      event.updatePropertyWithValue('dtend', ICAL.Time.fromDateString(addDays(when.last, 1)))
      event.updatePropertyWithValue('transp', 'TRANSPARENT')
    }
    calendar.addSubcomponent(event)
  }
  return `${calendar.toString()}\r\n`
}

const weekEntries = (
  prefix: string,
  weeks: readonly Week[],
  named: (week: Week) => string,
): Entry[] =>
  weeks.map((week) => ({
    uid: `${prefix}-week-${week.number}`,
    summary: named(week),
    category: 'Week',
    when: { first: week.first, last: week.last },
    ...(week.interruptedBy ? { description: `Interrupted by ${week.interruptedBy}` } : {}),
  }))

/** A term as an iCalendar file: its weeks, breaks, holidays, other dates and sessions. */
export const termCalendar = (term: Term, weeks: readonly Week[], stampedAt: string): string => {
  const day =
    (kind: string, category: string) =>
    (day: { name: string; date: string }, i: number): Entry => ({
      uid: `${term.code}-${kind}-${i + 1}`,
      summary: day.name,
      category,
      when: { first: day.date, last: day.date },
    })
  return written(
    term.title,
    [
      ...weekEntries(term.code, weeks, (week) =>
        week.breakName ? `${week.breakName} (week ${week.number})` : `Week ${week.number}`,
      ),
      ...term.breaks.map((pause, i): Entry => ({
        uid: `${term.code}-break-${i + 1}`,
        summary: pause.name,
        category: 'Break',
        when: { first: pause.first, last: pause.last },
      })),
      ...term.holidays.map(day('holiday', 'Holiday')),
      ...term.otherDates.map(day('date', 'Date')),
      ...term.sessions.map((session): Entry => ({
        uid: `${term.code}-session-${session.code}`,
        summary: session.title,
        category: 'Session',
        when: { first: session.firstDay, last: session.lastDay },
      })),
    ],
    stampedAt,
  )
}

/** When and where an event is held. @param at when it begins, ISO 8601 */
const eventIn = (
  { definition: { settings } }: ExpectedPart,
  at: string,
): Pick<Entry, 'when' | 'location'> => ({
  ...(settings.where ? { location: settings.where } : {}),
  when: settings.minutes === undefined ? { at } : { at, minutes: settings.minutes },
})

/** What a course expects of its students, as an iCalendar file: its weeks by their modules' names, and what is due when. */
export const courseCalendar = (
  expected: ExpectedCourse,
  platformId: string,
  stampedAt: string,
): string => {
  const parts = everyExpected(expected.parts)
  const nameOf = (week: Week) =>
    parts.find(
      (part) =>
        part.kind === 'module' && part.weeks.length === 1 && part.week?.number === week.number,
    )?.name ?? (week.breakName ? `${week.breakName} (week ${week.number})` : `Week ${week.number}`)
  return written(
    expected.name,
    [
      ...weekEntries(
        platformId,
        expected.weeks,
        (week) => `${expected.facts.code}: ${nameOf(week)}`,
      ),
      ...parts.flatMap((part): Entry[] =>
        part.dueAt === null || part.audience !== 'students' || part.inBreak
          ? []
          : [
              {
                uid: `${platformId}-${part.instance}-due`,
                summary: part.name.includes(expected.facts.code)
                  ? part.name
                  : `${expected.facts.code}: ${part.name}`,
                category: isHeld(part) ? 'Event' : 'Due',
                ...(isHeld(part) ? eventIn(part, part.dueAt) : { when: { at: part.dueAt } }),
              },
            ],
      ),
    ],
    stampedAt,
  )
}
