import { rememberOf } from '../remember/index.ts'
import { addDays, dayNumber, weekdayIndex, weekdays, type Weekday } from './plainDate.ts'
import type { Term } from './term.ts'

/** One instructional week of a course. Dates are `YYYY-MM-DD` in the term's time zone, both ends included. */
export interface Week {
  number: number
  first: string
  last: string
  /** Name of the break when no class day of the week is left, else null. */
  breakName: string | null
  /** Name of a break or holiday that takes some of its days, else null. */
  interruptedBy: string | null
}

export interface WeeksRequest {
  term: Term
  /** The term after it, for a course that spans two: its weeks are numbered on. */
  nextTerm?: Term | undefined
  /** Code of a session of the term, for a course shorter than the term. */
  session?: string | undefined
  /** How many weeks the course wants; further weeks of the term are left out. */
  count?: number | undefined
}

/** Monday to Friday of a stretch: the days by which a week is short, or wholly a break. */
const workdaysOf = (first: string, last: string): string[] => {
  const days: string[] = []
  for (let day = first; day <= last; day = addDays(day, 1))
    if (weekdayIndex(day) < 5) days.push(day)
  return days
}

const startOfWeek = (date: string, startsOn: Weekday): string =>
  addDays(date, -((weekdayIndex(date) - weekdays.indexOf(startsOn) + 7) % 7))

/**
 * The instructional weeks of a term or of one of its sessions, in order, clipped to its first and last day; those of the
 * next term after them for a course that spans two. A week whose Monday-to-Friday days all lie in breaks, or in a break and
 * holidays, is a break's week; whether it takes a number is the term's `breakWeeksCount`. Breaks that take no number are left out. A
 * preparatory week has the number 0 and lies before the first day.
 * @throws RangeError when the session is not one of the term's.
 */
export const instructionalWeeks = ({ term, nextTerm, session, count }: WeeksRequest): Week[] => {
  const span = session === undefined ? term : term.sessions.find(({ code }) => code === session)
  if (!span)
    throw new RangeError(
      `term ${term.code} has no session ${session}: add it to the term or drop it from the facts`,
    )
  const weeks = weeksOfSpan(term, span.firstDay, span.lastDay, null)
  const all = nextTerm
    ? [
        ...weeks,
        ...weeksOfSpan(
          nextTerm,
          nextTerm.firstDay,
          nextTerm.lastDay,
          (weeks.at(-1)?.number ?? 0) + 1,
        ),
      ]
    : weeks
  return count === undefined ? all : all.filter((week) => week.number <= count)
}

/**
 * What empties a week: one break, or several that adjoin, or a break with holidays beside it; their names, else null.
 * Holidays alone make no break.
 */
const closedBy = ({ breaks, holidays }: Term, workdays: readonly string[]): string | null => {
  const pauses = breaks.filter((pause) =>
    workdays.some((day) => day >= pause.first && day <= pause.last),
  )
  const free = holidays.filter(({ date }) => workdays.includes(date))
  const isClosed = (day: string): boolean =>
    pauses.some((pause) => day >= pause.first && day <= pause.last) ||
    free.some(({ date }) => date === day)
  if (pauses.length === 0 || !workdays.every(isClosed)) return null
  const [whole] = pauses.filter((pause) =>
    workdays.every((day) => day >= pause.first && day <= pause.last),
  )
  return whole?.name ?? [...pauses, ...free].map(({ name }) => name).join(' and ')
}

/** All courses of a term, and of a session of it, have the same weeks. */
const spansOf = rememberOf<Term, Map<string, Week[]>>(() => new Map())

/** @param goesOnWith the number the first week takes when it continues an earlier term, else null */
const weeksOfSpan = (
  term: Term,
  firstDay: string,
  lastDay: string,
  goesOnWith: number | null,
): Week[] => {
  const spans = spansOf(term)
  const key = `${firstDay} ${lastDay} ${goesOnWith}`
  const weeks = spans.get(key) ?? workedOut(term, firstDay, lastDay, goesOnWith)
  spans.set(key, weeks)
  return [...weeks]
}

const workedOut = (
  term: Term,
  firstDay: string,
  lastDay: string,
  goesOnWith: number | null,
): Week[] => {
  const isShort = (first: string, last: string) =>
    dayNumber(last) - dayNumber(first) < 6 && workdaysOf(first, last).length < 5
  const stretches: { first: string; last: string }[] = []
  const opensIn = startOfWeek(firstDay, term.weekStartsOn)
  for (let start = opensIn; start <= lastDay; start = addDays(start, 7)) {
    const end = addDays(start, 6)
    stretches.push({
      first: start < firstDay ? firstDay : start,
      last: end > lastDay ? lastDay : end,
    })
  }
  let firstNumber = goesOnWith ?? 1
  const [opening, second] = stretches
  if (opening && second && isShort(opening.first, opening.last)) {
    if (term.shortFirstWeek === 'joins-next')
      stretches.splice(0, 2, { first: opening.first, last: second.last })
    if (term.shortFirstWeek === 'is-week-0' && goesOnWith === null) firstNumber = 0
  }
  const closing = stretches.at(-1)
  const beforeClosing = stretches.at(-2)
  if (
    closing &&
    beforeClosing &&
    term.shortLastWeek === 'joins-previous' &&
    isShort(closing.first, closing.last)
  )
    stretches.splice(-2, 2, { first: beforeClosing.first, last: closing.last })
  if (term.preparatoryWeek && firstNumber === 1 && goesOnWith === null) {
    stretches.unshift({ first: addDays(opensIn, -7), last: addDays(firstDay, -1) })
    firstNumber = 0
  }

  const weeks: Week[] = []
  let number = firstNumber
  for (const { first, last } of stretches) {
    const workdays = workdaysOf(first, last)
    const closed = closedBy(term, workdays)
    const touching = term.breaks.find((pause) => pause.first <= last && pause.last >= first)
    const holiday = term.holidays.find((holiday) => holiday.date >= first && holiday.date <= last)
    if (closed && !term.breakWeeksCount) continue
    weeks.push({
      number: number++,
      first,
      last,
      breakName: closed,
      interruptedBy: closed ? null : (touching?.name ?? holiday?.name ?? null),
    })
  }
  return weeks
}
