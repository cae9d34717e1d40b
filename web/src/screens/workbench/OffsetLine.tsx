import { useId, useState } from 'react'
import {
  formatDate,
  localDateOf,
  localTimeOf,
  offsetWords,
  parseOffset,
  type Offset,
} from '@wickerframe/core'

/** A point in time told relative to the calendar, edited in words; what it comes to in the chosen course stands beside it. */
export const OffsetLine = ({
  label,
  value,
  instant,
  timeZone,
  disabled,
  onDone,
}: {
  label: string
  value: Offset | undefined
  instant: string | null
  timeZone: string | null
  disabled: boolean
  onDone: (offset: Offset | null) => void
}) => {
  const told = useId()
  const [typed, setTyped] = useState(value ? offsetWords(value) : '')
  const read = typed.trim() === '' ? null : parseOffset(typed)
  const done = () => {
    if (read === null) {
      if (value !== undefined) onDone(null)
    } else if (read.ok && (value === undefined || offsetWords(read.value) !== offsetWords(value)))
      onDone(read.value)
  }
  return (
    <div>
      <label className="grid grid-cols-[3.5rem_1fr] items-baseline gap-2 text-ink-2">
        <span>{label}</span>
        <input
          className={`border bg-sheet px-2 py-0.5 text-ink ${read && !read.ok ? 'border-rust' : 'border-line-strong'}`}
          value={typed}
          disabled={disabled}
          placeholder="day 5 of its week at 23:59"
          aria-invalid={read !== null && !read.ok}
          aria-describedby={told}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={done}
          onKeyDown={(event) => event.key === 'Enter' && done()}
        />
      </label>
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
    </div>
  )
}
