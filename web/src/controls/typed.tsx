import { useCallback, useEffect, useRef, useState, type InputHTMLAttributes } from 'react'

const settleMilliseconds = 700

/** What is typed into a field, handed on when it rests for a moment or is left; a closed window loses no more than that moment. */
export const useTyped = <T,>(value: T, onDone: (value: T) => void) => {
  const [typed, setTyped] = useState(value)
  const [known, setKnown] = useState(value)
  const latest = useRef({ typed, value, onDone })
  if (known !== value) {
    // Somebody else, or undo, set the field.
    setKnown(value)
    setTyped(value)
  }
  useEffect(() => {
    latest.current = { typed, value, onDone }
  })
  const flush = useCallback(() => {
    const { typed: now, value: was, onDone: done } = latest.current
    if (now !== was) done(now)
  }, [])
  useEffect(() => {
    if (typed === value) return
    const timer = setTimeout(flush, settleMilliseconds)
    return () => clearTimeout(timer)
  }, [typed, value, flush])
  useEffect(() => flush, [flush])
  return { typed, setTyped, flush }
}

type Line = {
  label: string
  value: string
  onDone: (value: string) => void
  problem?: string | null
  hint?: string
  className?: string
}

/** One line of text, kept as it is typed. */
export const TextLine = ({
  label,
  value,
  onDone,
  problem = null,
  hint,
  className = '',
  ...rest
}: Line & Omit<InputHTMLAttributes<HTMLInputElement>, keyof Line>) => {
  const { typed, setTyped, flush } = useTyped(value, onDone)
  return (
    <label className={`flex flex-col gap-0.5 text-ink-2 ${className}`}>
      {label !== '' && <span>{label}</span>}
      <input
        className={`border bg-sheet px-2 py-1 text-ink ${problem ? 'border-rust' : 'border-line-strong'}`}
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={flush}
        {...rest}
      />
      {(problem ?? hint) && (
        <span className={problem ? 'text-rust' : 'text-[12.5px] text-ink-3'}>
          {problem ?? hint}
        </span>
      )}
    </label>
  )
}

/** Several lines of text. */
export const TextLines = ({
  label,
  value,
  onDone,
  hint,
  className = '',
  rows = 3,
}: Line & { rows?: number }) => {
  const { typed, setTyped, flush } = useTyped(value, onDone)
  return (
    <label className={`flex flex-col gap-0.5 text-ink-2 ${className}`}>
      <span>{label}</span>
      <textarea
        rows={Math.max(rows, Math.min(8, typed.split('\n').length))}
        className="border border-line-strong bg-sheet px-2 py-1 text-ink"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={flush}
      />
      {hint && <span className="text-[12.5px] text-ink-3">{hint}</span>}
    </label>
  )
}

/** A number, or nothing. */
export const NumberLine = ({
  label,
  name,
  value,
  least = 0,
  most = 10_000,
  onDone,
  className = '',
}: {
  label: string
  name?: string
  value: number | undefined
  least?: number
  most?: number
  onDone: (value: number | null) => void
  className?: string
}) => {
  const read = (text: string): number | null | undefined => {
    if (text.trim() === '') return null
    const number = Number(text.replace(',', '.'))
    return Number.isFinite(number) && number >= least && number <= most ? number : undefined
  }
  const [now, setNow] = useState(value === undefined ? '' : String(value))
  const [known, setKnown] = useState(value)
  if (known !== value) {
    setKnown(value)
    setNow(value === undefined ? '' : String(value))
  }
  const number = read(now)
  const done = () => {
    if (number !== undefined && number !== (value ?? null)) onDone(number)
  }
  return (
    <label className={`flex flex-col gap-0.5 text-ink-2 ${className}`}>
      {label !== '' && <span>{label}</span>}
      <input
        inputMode="decimal"
        className={`w-20 border bg-sheet px-2 py-1 text-ink ${number === undefined ? 'border-rust' : 'border-line-strong'}`}
        aria-invalid={number === undefined}
        aria-label={name}
        value={now}
        onChange={(event) => setNow(event.target.value)}
        onBlur={done}
        onKeyDown={(event) => event.key === 'Enter' && done()}
      />
      {number === undefined && (
        <span className="text-rust">
          from {least} to {most}
        </span>
      )}
    </label>
  )
}

export const Tick = ({
  label,
  checked,
  disabled,
  onChange,
}: {
  label: string
  checked: boolean
  disabled?: boolean
  onChange: (checked: boolean) => void
}) => (
  <label className="flex min-h-[26px] items-center gap-1.5">
    <input
      type="checkbox"
      className="size-4 shrink-0 accent-tide"
      checked={checked}
      disabled={disabled}
      onChange={(event) => onChange(event.target.checked)}
    />
    <span>{label}</span>
  </label>
)
