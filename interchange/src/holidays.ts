import ICAL from 'ical.js'
import {
  addDays,
  failure,
  success,
  type FreeDays,
  type Problem,
  type Result,
} from '@wickerframe/core'

const mostCharacters = 4_000_000
const mostEvents = 5000
const mostRepeats = 1000

/** What our own calendar files hold besides free days. */
const notFree = new Set(['Week', 'Session', 'Date', 'Due'])

const dateOf = (time: ICAL.Time): string =>
  `${String(time.year).padStart(4, '0')}-${String(time.month).padStart(2, '0')}-${String(time.day).padStart(2, '0')}`

const unusable = (found: string, expected: string): Result<FreeDays> =>
  failure<Problem[]>([{ code: 'unusable', path: '', found, expected }])

/** The days an event takes within a stretch, its repetitions (RRULE) included; bounded. */
const stretchesOf = (
  event: ICAL.Event,
  from: string,
  until: string,
): { first: string; last: string }[] => {
  const length =
    event.component.hasProperty('dtend') || event.component.hasProperty('duration')
      ? Math.max(
          1,
          Math.round(
            (event.endDate.toJSDate().getTime() - event.startDate.toJSDate().getTime()) /
              86_400_000,
          ),
        )
      : 1
  const stretch = (start: ICAL.Time) => ({
    first: dateOf(start),
    last: addDays(dateOf(start), length - 1),
  })
  if (!event.isRecurring())
    return [stretch(event.startDate)].filter((one) => one.last >= from && one.first <= until)
  const found: { first: string; last: string }[] = []
  const iterator = event.iterator()
  for (let i = 0; i < mostRepeats; i++) {
    const next = iterator.next()
    if (!next || dateOf(next) > until) break
    const one = stretch(next)
    if (one.last >= from) found.push(one)
  }
  return found
}

/**
 * Reads holidays and breaks from an iCalendar file (RFC 5545): whole-day events of one day are holidays, longer ones
 * breaks; events with times are left out. Nothing in the file is fetched or run.
 * @param from first day wanted, `YYYY-MM-DD`
 * @param until last day wanted
 */
export const readFreeDays = (text: string, from: string, until: string): Result<FreeDays> => {
  if (text.length > mostCharacters)
    return unusable(
      `${text.length} characters`,
      `an iCalendar file of at most ${mostCharacters} characters`,
    )
  let events: ICAL.Component[]
  try {
    const root = new ICAL.Component(ICAL.parse(text))
    if (root.name !== 'vcalendar')
      return unusable(root.name.toUpperCase(), 'an iCalendar file that begins with BEGIN:VCALENDAR')
    events = root.getAllSubcomponents('vevent')
  } catch (cause) {
    return unusable(
      cause instanceof Error ? cause.message.slice(0, 120) : 'text',
      'an iCalendar file (RFC 5545)',
    )
  }
  if (events.length > mostEvents)
    return unusable(`${events.length} events`, `at most ${mostEvents} events`)
  const days: FreeDays = { holidays: [], breaks: [], leftOut: 0 }
  for (const component of events) {
    let stretches: { first: string; last: string }[] = []
    let name = ''
    try {
      const event = new ICAL.Event(component)
      name = (event.summary ?? '').trim().slice(0, 200)
      const ours = String(component.getFirstPropertyValue('categories') ?? '')
      if (event.startDate?.isDate && !notFree.has(ours)) stretches = stretchesOf(event, from, until)
    } catch {
      // An event that cannot be read is one of those left out; the others are still good.
    }
    if (stretches.length === 0) days.leftOut += 1
    for (const { first, last } of stretches)
      if (first === last) days.holidays.push({ name: name || 'Holiday', date: first })
      else
        days.breaks.push({
          name: name || 'Break',
          first: first < from ? from : first,
          last: last > until ? until : last,
        })
  }
  const byDate = (a: { date?: string; first?: string }, b: { date?: string; first?: string }) =>
    (a.date ?? a.first ?? '') < (b.date ?? b.first ?? '') ? -1 : 1
  return success({
    ...days,
    holidays: days.holidays.sort(byDate),
    breaks: days.breaks.sort(byDate),
  })
}
