import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import { addDays, addMonths, dayNames, formatDate, weekdayIndex } from '@wickerframe/core'
import { Button } from '../controls.tsx'

const daysOfWeek = [0, 1, 2, 3, 4, 5, 6]
const most = 6

/** The weeks of the month of a day, Monday first, whole: their days before and after the month are null. */
const weeksOf = (day: string): (string | null)[][] => {
  const first = `${day.slice(0, 7)}-01`
  const monday = addDays(first, -weekdayIndex(first))
  return Array.from({ length: most }, (_, week) =>
    daysOfWeek.map((i) => {
      const one = addDays(monday, week * 7 + i)
      return one.slice(0, 7) === day.slice(0, 7) ? one : null
    }),
  ).filter((week) => week.some((one) => one !== null))
}

/** Where a key leads from a day; null: nowhere. */
const led = (key: string, day: string): string | null => {
  const weekday = weekdayIndex(day)
  switch (key) {
    case 'ArrowLeft':
      return addDays(day, -1)
    case 'ArrowRight':
      return addDays(day, 1)
    case 'ArrowUp':
      return addDays(day, -7)
    case 'ArrowDown':
      return addDays(day, 7)
    case 'Home':
      return addDays(day, -weekday)
    case 'End':
      return addDays(day, 6 - weekday)
    case 'PageUp':
      return addMonths(day, -1)
    case 'PageDown':
      return addMonths(day, 1)
    default:
      return null
  }
}

/** A month to choose a day from: arrows walk it, the page keys turn it. One stop of the Tab key. */
export const MonthGrid = ({
  chosen,
  from,
  notBefore,
  onPick,
}: {
  /** The day that is chosen now; null: none. */
  chosen: string | null
  /** Where one looks first, where none is chosen. */
  from: string
  /** Days before it cannot be chosen. */
  notBefore: string | undefined
  onPick: (day: string) => void
}) => {
  const [at, setAt] = useState(chosen ?? from)
  const walked = useRef(false)
  const stop = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    if (walked.current) stop.current?.focus()
    walked.current = false
  })
  const isTooEarly = (day: string): boolean => notBefore !== undefined && day < notBefore
  const onKey = (event: KeyboardEvent) => {
    const day = led(event.key, at)
    if (day === null) return
    event.preventDefault()
    walked.current = true
    setAt(day)
  }
  return (
    <div>
      <p className="flex items-center justify-between gap-2">
        <Button aria-label="The month before" onClick={() => setAt(addMonths(at, -1))}>
          ‹
        </Button>
        <span role="status" className="font-serif text-[15px] font-semibold">
          {formatDate(at, 'MMMM yyyy')}
        </span>
        <Button aria-label="The month after" onClick={() => setAt(addMonths(at, 1))}>
          ›
        </Button>
      </p>
      <table
        role="grid"
        aria-label={formatDate(at, 'MMMM yyyy')}
        className="mt-2"
        onKeyDown={onKey}
      >
        <thead>
          <tr>
            {dayNames.map((name) => (
              <th key={name} scope="col" abbr={name} className="text-[12px] font-normal text-ink-2">
                {name.slice(0, 2)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {weeksOf(at).map((week) => (
            <tr key={week.find((day) => day !== null)}>
              {week.map((day, i) => (
                <td key={i} aria-selected={day !== null && day === chosen} className="p-0">
                  {day !== null && (
                    <button
                      ref={day === at ? stop : undefined}
                      type="button"
                      tabIndex={day === at ? 0 : -1}
                      aria-label={formatDate(day, 'EEEE d MMMM yyyy')}
                      aria-disabled={isTooEarly(day)}
                      className={`h-7 w-8 aria-disabled:text-ink-3 aria-disabled:line-through ${day === chosen ? 'bg-ink text-sheet' : 'hover:bg-band'}`}
                      onClick={() => !isTooEarly(day) && onPick(day)}
                    >
                      {Number(day.slice(8))}
                    </button>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
