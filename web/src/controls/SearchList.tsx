import { useId, useLayoutEffect, useRef, useState, type ReactNode } from 'react'

/** Letters as they are compared: without accents and case. */
export const plainLetters = (text: string): string =>
  text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()

/** Whether a text holds every word of what was typed, wherever they stand. */
export const holdsWords = (text: string, typed: string): boolean => {
  const plain = plainLetters(text)
  return plainLetters(typed)
    .split(/\s+/)
    .every((word) => plain.includes(word))
}

/** A field that finds among many: what is typed narrows the list; arrows and Enter choose, or a press; Escape gives up. */
export const SearchList = <Option,>({
  label,
  placeholder,
  listLabel,
  find,
  idOf,
  draw,
  none,
  chosen = null,
  onTyped,
  onChoose,
  onClose,
}: {
  label: string
  placeholder: string
  listLabel: string
  find: (typed: string) => readonly Option[]
  idOf: (option: Option) => string
  draw: (option: Option) => ReactNode
  /** What is said where nothing is found. */
  none: string
  /** The one that is chosen already; it is marked at first. */
  chosen?: string | null
  /** Told what is typed. */
  onTyped?: (typed: string) => void
  onChoose: (option: Option) => void
  onClose: () => void
}) => {
  const [typed, setTyped] = useState('')
  const options = find(typed)
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      options.findIndex((option) => idOf(option) === chosen),
    ),
  )
  const list = useId()
  const standing = Math.min(at, options.length - 1)
  const marked = options[standing]
  const shown = useRef<HTMLLIElement>(null)
  useLayoutEffect(() => {
    shown.current?.scrollIntoView({ block: 'nearest' })
  })
  return (
    <div className="min-w-64 grow">
      <label className="flex flex-col text-ink-2">
        {label}
        <input
          autoFocus
          role="combobox"
          aria-expanded={options.length > 0}
          aria-controls={list}
          aria-activedescendant={marked ? `${list}-${standing}` : undefined}
          autoComplete="off"
          className="border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          placeholder={placeholder}
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            onTyped?.(event.target.value)
            setAt(0)
          }}
          onKeyDown={(event) => {
            event.stopPropagation()
            if (event.key === 'ArrowDown') setAt(Math.min(standing + 1, options.length - 1))
            else if (event.key === 'ArrowUp') setAt(Math.max(standing - 1, 0))
            else if (event.key === 'Enter' && marked) onChoose(marked)
            else if (event.key === 'Escape') onClose()
            else return
            event.preventDefault()
          }}
        />
      </label>
      <ul
        role="listbox"
        id={list}
        aria-label={listLabel}
        className="mt-1 max-h-80 overflow-y-auto border border-line bg-sheet"
      >
        {options.map((option, i) => (
          <li
            key={idOf(option)}
            ref={i === standing ? shown : undefined}
            id={`${list}-${i}`}
            role="option"
            aria-selected={i === standing}
            className={`cursor-pointer px-2 py-0.5 ${i === standing ? 'bg-tide-soft' : ''}`}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => onChoose(option)}
          >
            {draw(option)}
          </li>
        ))}
      </ul>
      {options.length === 0 && <p className="text-ink-2">{none}</p>}
    </div>
  )
}
