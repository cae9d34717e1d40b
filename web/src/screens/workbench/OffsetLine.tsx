import { useId, useState } from 'react'
import {
  formatDate,
  localDateOf,
  localTimeOf,
  offsetWords,
  parseOffset,
  type Offset,
} from '@wickerframe/core'
import { asksHow, WrittenLike } from './WrittenLike.tsx'

/** A point in time told relative to the calendar, edited in words; what it comes to in the chosen course stands beside it. */
export const OffsetLine = ({
  label,
  value,
  instant,
  timeZone,
  usualTime,
  disabled,
  onDone,
}: {
  label: string
  value: Offset | undefined
  instant: string | null
  timeZone: string | null
  /** The time that is meant where none is written, `HH:MM`. */
  usualTime: string
  disabled: boolean
  onDone: (offset: Offset | null) => void
}) => {
  const told = useId()
  const field = useId()
  const [typed, setTyped] = useState(value ? offsetWords(value, usualTime) : '')
  const [isAsking, setIsAsking] = useState(false)
  const read = typed.trim() === '' || asksHow(typed) ? null : parseOffset(typed, usualTime)
  const done = () => {
    if (asksHow(typed)) return
    if (read === null) {
      if (value !== undefined) onDone(null)
    } else if (read.ok && (value === undefined || offsetWords(read.value) !== offsetWords(value)))
      onDone(read.value)
  }
  return (
    <div>
      <div className="grid grid-cols-[3.5rem_1fr_auto] items-baseline gap-2 text-ink-2">
        <label htmlFor={field}>{label}</label>
        <input
          id={field}
          className={`border bg-sheet px-2 py-0.5 text-ink ${read && !read.ok ? 'border-rust' : 'border-line-strong'}`}
          value={typed}
          disabled={disabled}
          placeholder="Sunday 23:59"
          aria-invalid={read !== null && !read.ok}
          aria-describedby={told}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={done}
          onKeyDown={(event) => event.key === 'Enter' && done()}
        />
        <button
          type="button"
          aria-expanded={isAsking}
          aria-label={`How dates are written: ${label}`}
          className="size-[24px] cursor-pointer border border-line-strong text-ink-2"
          onClick={() => setIsAsking(!isAsking)}
        >
          ?
        </button>
      </div>
      <p
        id={told}
        className={`pl-[4rem] text-[12.5px] ${read && !read.ok ? 'text-rust' : 'text-ink-3'}`}
      >
        {read && !read.ok
          ? read.problems.message
          : instant && timeZone
            ? `here ${formatDate(localDateOf(instant, timeZone), 'EEE d MMM yyyy')}, ${localTimeOf(instant, timeZone)}`
            : ''}
      </p>
      {(isAsking || asksHow(typed)) && (
        <div className="mb-1 border border-line bg-sheet px-2 py-1">
          <WrittenLike />
        </div>
      )}
    </div>
  )
}
