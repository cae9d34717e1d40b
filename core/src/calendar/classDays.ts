import { addDays, weekdayIndex, weekdays, type Weekday } from './plainDate.ts'
import type { Term } from './term.ts'
import type { Week } from './weeks.ts'

/** A day on which a course meets. */
export interface ClassDay {
  /** `YYYY-MM-DD`. */
  date: string
  /** Number of the week it lies in. */
  week: number
  /** Place among the class days of its week, from 1. */
  ofWeek: number
}

/** A free day: inside a break, or a holiday. */
export const isFree = (date: string, term: Term): boolean =>
  term.breaks.some((pause) => date >= pause.first && date <= pause.last) ||
  term.holidays.some((holiday) => holiday.date === date)

/**
 * The days of a week on which class is held: the course's meeting days (Monday to Friday without any) that lie in no
 * break and on no holiday, in order.
 */
export const classDaysOf = (
  week: Week,
  term: Term,
  meetingDays: readonly Weekday[] = [],
): ClassDay[] => {
  const meets = (date: string) => {
    const weekday = weekdays[weekdayIndex(date)]
    return (
      weekday !== undefined &&
      (meetingDays.length === 0 ? weekdayIndex(date) < 5 : meetingDays.includes(weekday))
    )
  }
  const days: ClassDay[] = []
  for (let date = week.first; date <= week.last; date = addDays(date, 1))
    if (meets(date) && !isFree(date, term))
      days.push({ date, week: week.number, ofWeek: days.length + 1 })
  return days
}

/** Half of a week in a class that meets twice: A begins with the week, B with the second meeting day. */
export interface WeekHalf {
  half: 'A' | 'B'
  first: string
  last: string
}

/** The halves of a week for two meeting days, in order; none for any other number of them. */
export const halvesOf = (week: Week, term: Term, meetingDays: readonly Weekday[]): WeekHalf[] => {
  if (meetingDays.length !== 2) return []
  const second =
    [...meetingDays]
      .map((day) => (weekdays.indexOf(day) - weekdays.indexOf(term.weekStartsOn) + 7) % 7)
      .sort((a, b) => a - b)[1] ?? 0
  const startOfWeek = addDays(
    week.first,
    -((weekdayIndex(week.first) - weekdays.indexOf(term.weekStartsOn) + 7) % 7),
  )
  const turn = addDays(startOfWeek, second)
  const halves: WeekHalf[] = [
    {
      half: 'A',
      first: week.first,
      last: addDays(turn, -1) > week.last ? week.last : addDays(turn, -1),
    },
    { half: 'B', first: turn < week.first ? week.first : turn, last: week.last },
  ]
  // A short week may hold only one of the two meetings.
  return halves.filter((half) => half.first <= half.last)
}
