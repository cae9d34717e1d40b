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
  /** Code of a session of the term, for a course shorter than the term. */
  session?: string | undefined
  /** How many weeks the course wants; further weeks of the term are left out. */
  count?: number | undefined
}

const classDaysOf = (first: string, last: string): string[] => {
  const days: string[] = []
  for (let day = first; day <= last; day = addDays(day, 1)) if (weekdayIndex(day) < 5) days.push(day)
  return days
}

const startOfWeek = (date: string, startsOn: Weekday): string =>
  addDays(date, -((weekdayIndex(date) - weekdays.indexOf(startsOn) + 7) % 7))

/**
 * The instructional weeks of a term or of one of its sessions, in order, clipped to its first and last day.
 * A week whose Monday-to-Friday days all lie in one break is that break's week; whether it takes a number is
 * the term's `breakWeeksCount`. Breaks that take no number are left out.
 * @throws RangeError when the session is not one of the term's.
 */
export const instructionalWeeks = ({ term, session, count }: WeeksRequest): Week[] => {
  const span = session === undefined ? term : term.sessions.find((one) => one.code === session)
  if (!span) throw new RangeError(`term ${term.code} has no session ${session}: add it to the term or drop it from the facts`)
  const isShort = (first: string, last: string) => dayNumber(last) - dayNumber(first) < 6 && classDaysOf(first, last).length < 5

  const stretches: { first: string; last: string }[] = []
  for (let start = startOfWeek(span.firstDay, term.weekStartsOn); start <= span.lastDay; start = addDays(start, 7)) {
    const end = addDays(start, 6)
    stretches.push({ first: start < span.firstDay ? span.firstDay : start, last: end > span.lastDay ? span.lastDay : end })
  }
  let firstNumber = 1
  const [opening, second] = stretches
  if (opening && second && isShort(opening.first, opening.last)) {
    if (term.shortFirstWeek === 'joins-next') stretches.splice(0, 2, { first: opening.first, last: second.last })
    if (term.shortFirstWeek === 'is-week-0') firstNumber = 0
  }
  const closing = stretches.at(-1)
  const beforeClosing = stretches.at(-2)
  if (closing && beforeClosing && term.shortLastWeek === 'joins-previous' && isShort(closing.first, closing.last))
    stretches.splice(-2, 2, { first: beforeClosing.first, last: closing.last })

  const weeks: Week[] = []
  let number = firstNumber
  for (const { first, last } of stretches) {
    const classDays = classDaysOf(first, last)
    const closed = term.breaks.find((pause) => classDays.length > 0 && classDays.every((day) => day >= pause.first && day <= pause.last))
    const touching = term.breaks.find((pause) => pause.first <= last && pause.last >= first)
    const holiday = term.holidays.find((one) => one.date >= first && one.date <= last)
    if (closed && !term.breakWeeksCount) continue
    weeks.push({
      number: number++,
      first,
      last,
      breakName: closed?.name ?? null,
      interruptedBy: closed ? null : (touching?.name ?? holiday?.name ?? null),
    })
  }
  return count === undefined ? weeks : weeks.filter((week) => week.number <= count)
}
