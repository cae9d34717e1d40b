import { Fragment } from 'react'
import {
  addDays,
  daysBetween,
  instructionalWeeks,
  isoWeekOf,
  monthNames,
  weekdayIndex,
  weekdays,
  type Term,
  type Week,
} from '@wickerframe/core'

/** What a day of the drawing is, by shape and words first. */
interface DayMark {
  kind: 'outside' | 'class' | 'free' | 'weekend'
  /** Breaks, holidays and other dates that fall on it. */
  says: string[]
  isDate: boolean
}

/** @param opensRow whether the day begins a row: a break is named on its first day and again where a row begins */
const markOf = (date: string, term: Term, opensRow: boolean): DayMark => {
  const pause = term.breaks.find(({ first, last }) => date >= first && date <= last)
  const holidays = term.holidays.filter((holiday) => holiday.date === date)
  const dates = term.otherDates.filter((entry) => entry.date === date)
  const says = [
    ...(pause && (pause.first === date || opensRow) ? [pause.name] : []),
    ...holidays.map((holiday) => holiday.name),
    ...dates.map((date) => date.name),
  ]
  const kind =
    date < term.firstDay || date > term.lastDay
      ? 'outside'
      : pause || holidays.length > 0
        ? 'free'
        : weekdayIndex(date) > 4
          ? 'weekend'
          : 'class'
  return { kind, says, isDate: dates.length > 0 }
}

/** A stretch of the term drawn beside its weeks. */
export interface Strand {
  title: string
  first: string
  last: string
}

const dayClass: Record<DayMark['kind'], string> = {
  outside: 'text-ink-3',
  class: 'bg-sheet',
  weekend: 'bg-band text-ink-3',
  free: 'hatched text-ink-2',
}

const weekWords = (week: Week | undefined): string =>
  week ? (week.breakName ?? `Week ${week.number}`) : ''

/**
 * A term drawn as a calendar: a row for each calendar week, numbered as the term numbers them, breaks hatched, holidays
 * and other dates named on their days, longer stretches (sessions, units) as strands beside the weeks.
 * @param weeks the weeks that are numbered; the term's own without them
 */
export const TermCalendar = ({
  term,
  today,
  strands,
  weeks = instructionalWeeks({ term }),
}: {
  term: Term
  today: string
  strands: readonly Strand[]
  weeks?: readonly Week[]
}) => {
  const startsOn = weekdays.indexOf(term.weekStartsOn)
  const back = (date: string) => addDays(date, -((weekdayIndex(date) - startsOn + 7) % 7))
  const first = back(weeks[0]?.first ?? term.firstDay)
  const rows = Array.from(
    { length: Math.max(1, Math.floor(daysBetween(first, term.lastDay) / 7) + 1) },
    (_, i) => addDays(first, i * 7),
  )
  const order = Array.from({ length: 7 }, (_, i) => weekdays[(startsOn + i) % 7] ?? 'monday')
  return (
    <table className="w-full table-fixed border-collapse border border-line bg-paper text-[12.5px]">
      <caption className="sr-only">
        {term.title} as a calendar, {weeks.length} weeks
      </caption>
      <thead>
        <tr className="border-b border-line-strong text-ink-2">
          <th scope="col" className="w-[6.5rem] px-2 py-1 text-left">
            Week
          </th>
          {order.map((day) => (
            <th key={day} scope="col" className="px-1 py-1 text-left">
              <abbr title={day} className="no-underline">
                {day.slice(0, 1).toUpperCase() + day.slice(1, 3)}
              </abbr>
            </th>
          ))}
          <th scope="col" className="w-10 px-1 py-1 text-right">
            <abbr title="ISO 8601 week" className="no-underline">
              ISO
            </abbr>
          </th>
          {strands.length > 0 && (
            <th scope="col" className="px-1" style={{ width: 14 + strands.length * 12 }}>
              <span className="sr-only">Stretches</span>
            </th>
          )}
        </tr>
      </thead>
      <tbody>
        {rows.map((monday) => {
          const end = addDays(monday, 6)
          const inRow = weeks.filter((week) => week.first <= end && week.last >= monday)
          const week = inRow.find(({ first }) => first >= monday) ?? inRow[0]
          return (
            <tr key={monday} className="border-b border-line">
              <th
                scope="row"
                className={`px-2 py-0.5 text-left align-top ${week?.breakName ? 'hatched font-normal' : 'font-semibold'}`}
              >
                {weekWords(week)}
              </th>
              {order.map((_, i) => {
                const date = addDays(monday, i)
                const { kind, says, isDate } = markOf(date, term, i === 0)
                const opens = date.slice(8) === '01' || date === first
                return (
                  <td
                    key={date}
                    title={[date, ...says].join(', ')}
                    className={`h-8 border-l border-line px-1 align-top ${dayClass[kind]} ${date.slice(8) === '01' ? 'border-l-2 border-l-line-strong' : ''} ${Number(date.slice(8)) <= 7 ? 'border-t-2 border-t-line-strong' : ''}`}
                  >
                    <span className={date === today ? 'border-b-2 border-tide font-semibold' : ''}>
                      {opens && `${(monthNames[Number(date.slice(5, 7)) - 1] ?? '').slice(0, 3)} `}
                      {Number(date.slice(8))}
                    </span>
                    {date === today && <span className="sr-only"> (today)</span>}
                    {says.map((say) => (
                      <Fragment key={say}>
                        <span
                          className={`line-clamp-2 text-[11px] leading-tight ${isDate ? 'underline decoration-line-strong' : ''}`}
                        >
                          {say}
                        </span>
                      </Fragment>
                    ))}
                  </td>
                )
              })}
              <td className="border-l border-line px-1 text-right align-top text-ink-3">
                {isoWeekOf(addDays(monday, (7 - startsOn) % 7)).week}
              </td>
              {strands.length > 0 && (
                <td className="border-l border-line p-0">
                  <span className="flex h-8 gap-[6px] px-1.5">
                    {strands.map((strand) => {
                      const runs = strand.first <= end && strand.last >= monday
                      return (
                        <span
                          key={strand.title}
                          title={runs ? strand.title : undefined}
                          className={`h-full w-[6px] ${runs ? 'bg-warp' : ''}`}
                        >
                          <span className="sr-only">{runs ? strand.title : ''}</span>
                        </span>
                      )
                    })}
                  </span>
                </td>
              )}
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

/** What the shapes of the drawing mean. */
export const CalendarLegend = ({ strands }: { strands: readonly Strand[] }) => (
  <p className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-ink-2">
    <span>
      <span
        className="hatched mr-1 inline-block h-3 w-5 border border-line align-[-2px]"
        aria-hidden="true"
      />
      break or holiday
    </span>
    <span>
      <span
        className="mr-1 inline-block h-3 w-5 border border-line bg-band align-[-2px]"
        aria-hidden="true"
      />
      weekend
    </span>
    <span>
      <span className="mr-1 underline decoration-line-strong" aria-hidden="true">
        abc
      </span>
      other date
    </span>
    {strands.length > 0 && (
      <span>
        <span className="mr-1 inline-block h-3 w-[6px] bg-warp align-[-2px]" aria-hidden="true" />
        {strands.map((strand) => strand.title).join(', then ')}
      </span>
    )}
  </p>
)
