import ICAL from 'ical.js'
import {
  addDays,
  failure,
  success,
  type FreeDays,
  type Problem,
  type Result,
} from '@wickerframe/core'
import { dateOf, daysOfRule, Steps, TooManySteps } from './daysOfRule.ts'

const mostCharacters = 4_000_000
const mostEvents = 5000

/** What our own calendar files hold besides free days. */
const notFree = new Set(['Week', 'Session', 'Date', 'Due'])

const unusable = (found: string, expected: string): Result<FreeDays> =>
  failure<Problem[]>([{ code: 'unusable', path: '', found, expected }])

/** Dates that stand in a property of an event (EXDATE, RDATE). */
const datesIn = (component: ICAL.Component, name: string): string[] =>
  component
    .getAllProperties(name)
    .flatMap((property) => property.getValues() as unknown[])
    .flatMap((value) => (value instanceof ICAL.Time ? [dateOf(value)] : []))

/** The days an event takes within a stretch, its repetitions (RRULE, RDATE, without EXDATE) included. */
const stretchesOf = (
  event: ICAL.Event,
  from: string,
  until: string,
  steps: Steps,
): { first: string; last: string }[] => {
  const { component } = event
  const length =
    component.hasProperty('dtend') || component.hasProperty('duration')
      ? Math.max(
          1,
          Math.round(
            (event.endDate.toJSDate().getTime() - event.startDate.toJSDate().getTime()) /
              86_400_000,
          ),
        )
      : 1
  const start = dateOf(event.startDate)
  const rules = component
    .getAllProperties('rrule')
    .flatMap((property) => property.getValues() as unknown[])
    .flatMap((value) => (value instanceof ICAL.Recur ? [value] : []))
  const not = new Set(datesIn(component, 'exdate'))
  const starts = new Set([
    ...(rules.length === 0 ? [start] : []),
    ...rules.flatMap((rule) => daysOfRule(rule, start, addDays(from, 1 - length), until, steps)),
    ...datesIn(component, 'rdate'),
  ])
  steps.take(starts.size)
  return [...starts]
    .filter((date) => !not.has(date))
    .sort()
    .map((first) => ({ first, last: addDays(first, length - 1) }))
    .filter(({ last, first }) => last >= from && first <= until)
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
  const steps = new Steps()
  for (const component of events) {
    let stretches: { first: string; last: string }[] = []
    let name = ''
    try {
      const event = new ICAL.Event(component)
      name = (event.summary ?? '').trim().slice(0, 200)
      const ours = String(component.getFirstPropertyValue('categories') ?? '')
      if (event.startDate?.isDate && event.startDate.year >= 1900 && !notFree.has(ours))
        stretches = stretchesOf(event, from, until, steps)
    } catch (cause) {
      if (cause instanceof TooManySteps)
        return unusable(
          'repetitions without number',
          'fewer: take events that repeat every day or week for years out of the file',
        )
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
