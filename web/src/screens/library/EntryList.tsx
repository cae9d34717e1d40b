import { useRef, type KeyboardEvent } from 'react'
import { imageData } from '@wickerframe/core'
import type { LibraryEntry } from '@wickerframe/contract'
import { entryFacts, entryName, heldBy, usesOf } from './libraryKinds.ts'

const Row = ({
  entry,
  isOpen,
  isTabStop,
  onOpen,
}: {
  entry: LibraryEntry
  isOpen: boolean
  isTabStop: boolean
  onOpen: () => void
}) => {
  const of = heldBy(entry)
  return (
    <li>
      <button
        type="button"
        data-entry={entry.key}
        tabIndex={isTabStop ? 0 : -1}
        aria-current={isOpen ? 'true' : undefined}
        className={`flex w-full items-center gap-3 border-l-4 px-2 py-1.5 text-left ${isOpen ? 'border-ink bg-sheet' : 'border-transparent'}`}
        onClick={onOpen}
      >
        {of.kind === 'image' && (
          <img
            src={imageData(of.held)}
            alt=""
            className="h-12 w-24 shrink-0 border border-line bg-sheet object-contain"
          />
        )}
        <span className="min-w-0">
          <span className="block font-serif text-[16px] font-semibold">{entryName(entry)}</span>
          <span className="block text-[13px] text-ink-2">
            {entryFacts(entry)} · {usesOf(entry)}
            {entry.coursesOutOfDate > 0 && (
              <span className="text-rust">, {entry.coursesOutOfDate} out of date</span>
            )}
          </span>
        </span>
      </button>
    </li>
  )
}

/** The entries of a kind under one another; the arrow keys go from one to the next and show it. */
export const EntryList = ({
  entries,
  open,
  onOpen,
}: {
  entries: readonly LibraryEntry[]
  /** Key of the one that is shown. */
  open: string | null
  onOpen: (key: string) => void
}) => {
  const list = useRef<HTMLUListElement>(null)
  const at = entries.findIndex(({ key }) => key === open)
  const go = (event: KeyboardEvent) => {
    const to = { ArrowUp: at - 1, ArrowDown: at + 1, Home: 0, End: entries.length - 1 }[event.key]
    const entry = to === undefined ? undefined : entries[to]
    if (to === undefined) return
    event.preventDefault()
    if (!entry) return
    onOpen(entry.key)
    list.current?.querySelector<HTMLElement>(`[data-entry="${entry.key}"]`)?.focus()
  }
  return (
    <ul
      ref={list}
      aria-label="Entries"
      className="divide-y divide-line border-y border-line lg:max-h-[calc(100vh-15rem)] lg:overflow-y-auto"
      onKeyDown={go}
    >
      {entries.map((entry, i) => (
        <Row
          key={entry.key}
          entry={entry}
          isOpen={i === at}
          isTabStop={i === Math.max(0, at)}
          onOpen={() => onOpen(entry.key)}
        />
      ))}
    </ul>
  )
}
