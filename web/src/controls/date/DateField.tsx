import { Popover } from 'radix-ui'
import { useEffect, useId, useRef, useState, type KeyboardEvent } from 'react'
import { flushSync } from 'react-dom'
import { addDays, addMonths, dayWritten, formatDate, isPlainDate } from '@wickerframe/core'
import { Button } from '../controls.tsx'
import { MonthGrid } from './MonthGrid.tsx'

const dayWords = 'EEE d MMM yyyy'
const wordsOf = (day: string): string => (isPlainDate(day) ? formatDate(day, dayWords) : day)

/** What is wrong with what was typed, and what to do; null: nothing is. */
const wrongWith = (
  text: string,
  near: string,
  notBefore: string | undefined,
  required: boolean,
): string | null => {
  if (text === '') return required ? 'A day is needed, such as 16 Sep.' : null
  const written = dayWritten(text, near)
  if (written.state === 'either')
    return `That may be ${written.days.map((day) => formatDate(day, 'd MMM')).join(' or ')}: write the month as a word.`
  if (written.state === 'none') return `“${text}” is no day; write it like 16 Sep 2026.`
  return notBefore !== undefined && written.day < notBefore
    ? `Not before ${wordsOf(notBefore)}.`
    : null
}

const led = (key: string, day: string): string | null => {
  switch (key) {
    case 'ArrowUp':
      return addDays(day, 1)
    case 'ArrowDown':
      return addDays(day, -1)
    case 'PageUp':
      return addMonths(day, 1)
    case 'PageDown':
      return addMonths(day, -1)
    default:
      return null
  }
}

/**
 * A day, shown as `Wed 16 Sep 2026` and read however it is written; the arrows lead to the day before and after, the page keys a
 * month on, and a month can be looked at. What is no day stays as it was typed, is said, and is what is handed on.
 */
export const DateField = ({
  label,
  isLabelSeen = true,
  isSmall = false,
  value,
  near,
  notBefore,
  required = false,
  className = '',
  onPick,
}: {
  label: string
  isLabelSeen?: boolean
  /** Where rows of them stand close together. */
  isSmall?: boolean
  /** `YYYY-MM-DD`; empty: none; else what somebody typed. */
  value: string
  /** `YYYY-MM-DD`: what `today` is, and where a day without a year is looked for. */
  near: string
  notBefore?: string
  required?: boolean
  className?: string
  /** @param day `YYYY-MM-DD`; empty: none; else what was typed, which is no day */
  onPick: (day: string) => void
}) => {
  const id = useId()
  const input = useRef<HTMLInputElement>(null)
  /** What is typed in place of the value that stood there; another value from elsewhere outranks it. */
  const [typing, setTyping] = useState<{ text: string; over: string } | null>(null)
  const typed = typing?.over === value ? typing.text : null
  const [isLeft, setLeft] = useState(value !== '')
  const [isOpen, setOpen] = useState(false)
  const text = typed ?? wordsOf(value)
  const problem = wrongWith(text, near, notBefore, required)
  // A form is not sent with what is no day; the browser says why.
  useEffect(() => input.current?.setCustomValidity(problem ?? ''), [problem])
  const chosen = isPlainDate(value) ? value : null
  const pick = (day: string) => {
    setTyping(null)
    if (day !== value) onPick(day)
  }
  /** What was typed is taken as the day it is. */
  const take = () => {
    if (typed === null) return
    const written = dayWritten(typed, near)
    if (written.state === 'day') pick(written.day)
    else if (typed.trim() === '') pick('')
    else onPick(typed)
  }
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') {
      setLeft(true)
      // Before the form that it stands in is sent.
      flushSync(take)
    }
    if (event.key === 'Escape' && typed !== null) {
      event.stopPropagation()
      setTyping(null)
    }
    const day = led(event.key, chosen ?? near)
    if (day === null || typed !== null) return
    event.preventDefault()
    pick(day)
  }
  const isWrong = isLeft && problem !== null
  return (
    <span
      className={`inline-flex flex-col ${isSmall ? 'text-[12px]' : 'gap-0.5'} text-ink-2 ${className}`}
    >
      <label htmlFor={id} className={isLabelSeen ? '' : 'sr-only'}>
        {label}
      </label>
      <span className="flex">
        <input
          ref={input}
          id={id}
          className={`min-w-0 flex-1 border border-line-strong bg-sheet text-ink ${isSmall ? 'w-[8.5rem] px-1.5 py-0.5 text-[13px]' : 'w-[9.5rem] px-2 py-1'}`}
          value={text}
          required={required}
          autoComplete="off"
          aria-invalid={isWrong}
          aria-describedby={isWrong ? `${id}-wrong` : undefined}
          onChange={(event) => {
            const now = event.target.value
            setLeft(false)
            if (isPlainDate(now)) pick(now)
            else setTyping({ text: now, over: value })
          }}
          onKeyDown={onKey}
          onBlur={() => {
            setLeft(true)
            take()
          }}
        />
        <Popover.Root open={isOpen} onOpenChange={setOpen}>
          <Popover.Trigger asChild>
            <Button
              className={`border-l-0 px-1.5! ${isSmall ? 'py-0.5!' : 'py-1!'}`}
              aria-label={`${label}: choose from a month`}
            >
              ▾
            </Button>
          </Popover.Trigger>
          <Popover.Portal>
            <Popover.Content
              align="end"
              sideOffset={2}
              collisionPadding={8}
              aria-label={label}
              className="z-30 border border-line-strong bg-sheet p-3 text-ink"
              onOpenAutoFocus={(event) => {
                event.preventDefault()
                // Not before: a dialog that it is opened from keeps the focus within until then.
                if (event.target instanceof HTMLElement)
                  event.target.querySelector<HTMLElement>('td [tabindex="0"]')?.focus()
              }}
            >
              <MonthGrid
                chosen={chosen}
                from={notBefore !== undefined && notBefore > near ? notBefore : near}
                notBefore={notBefore}
                onPick={(day) => {
                  setOpen(false)
                  pick(day)
                }}
              />
            </Popover.Content>
          </Popover.Portal>
        </Popover.Root>
      </span>
      {isWrong && (
        <span id={`${id}-wrong`} role="alert" className="max-w-[17rem] text-rust">
          {problem}
        </span>
      )}
    </span>
  )
}
