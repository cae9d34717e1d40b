import { useId, useState } from 'react'
import type { PageSources } from './pageSources.ts'

/** Where a link leads: a part of the template, or an address. */
export type LinkPlace = { part: string; name: string } | { address: string }

const mostShown = 8

/** What was typed as an address, where it is one: with its scheme, as people leave it out. */
export const addressTyped = (typed: string): string | null => {
  const text = typed.trim()
  if (/^(?:https?:\/\/|mailto:|tel:)\S+$/i.test(text)) return text
  if (/^[^\s@/]+@[^\s@/]+\.[a-z]{2,}$/i.test(text)) return `mailto:${text}`
  return /^(?:[a-z0-9-]+\.)+[a-z]{2,}(?:[/?#]\S*)?$/i.test(text) ? `https://${text}` : null
}

const plain = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase()

/** Parts whose names hold every word, those that begin with them first; after them the address, where it is one. */
export const placesFor = (typed: string, parts: PageSources['parts']): LinkPlace[] => {
  const words = plain(typed).split(/\s+/).filter(Boolean)
  const found = parts
    .filter(({ name }) => words.every((word) => plain(name).includes(word)))
    .toSorted(
      (a, b) =>
        Number(plain(b.name).startsWith(words[0] ?? '')) -
        Number(plain(a.name).startsWith(words[0] ?? '')),
    )
    .map(({ key, name }): LinkPlace => ({ part: key, name }))
  const address = addressTyped(typed)
  return address === null
    ? found.slice(0, mostShown)
    : [{ address }, ...found.slice(0, mostShown - 1)]
}

const wordsOf = (place: LinkPlace): string => ('part' in place ? place.name : place.address)

/** Finds a part by its name, or takes an address: arrows and Enter, or a press. */
export const PlaceSearch = ({
  parts,
  onChoose,
  onClose,
}: {
  parts: PageSources['parts']
  onChoose: (place: LinkPlace) => void
  onClose: () => void
}) => {
  const [typed, setTyped] = useState('')
  const [at, setAt] = useState(0)
  const list = useId()
  const places = placesFor(typed, parts)
  const marked = places[Math.min(at, places.length - 1)]
  return (
    <div className="min-w-64 grow">
      <label className="flex flex-col text-ink-2">
        Leads to: a part by its name, or an address
        <input
          autoFocus
          role="combobox"
          aria-expanded={places.length > 0}
          aria-controls={list}
          aria-activedescendant={marked ? `${list}-${places.indexOf(marked)}` : undefined}
          autoComplete="off"
          className="border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          placeholder="welcome, or https://"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            setAt(0)
          }}
          onKeyDown={(event) => {
            event.stopPropagation()
            if (event.key === 'ArrowDown') setAt(Math.min(at + 1, places.length - 1))
            else if (event.key === 'ArrowUp') setAt(Math.max(at - 1, 0))
            else if (event.key === 'Enter' && marked) onChoose(marked)
            else if (event.key === 'Escape') onClose()
            else return
            event.preventDefault()
          }}
        />
      </label>
      <ul role="listbox" id={list} aria-label="Places" className="mt-1 border border-line bg-sheet">
        {places.map((place, i) => (
          <li
            key={'part' in place ? place.part : place.address}
            id={`${list}-${i}`}
            role="option"
            aria-selected={place === marked}
            className={`cursor-pointer px-2 py-0.5 ${place === marked ? 'bg-tide-soft' : ''}`}
            onMouseDown={(event) => event.preventDefault()}
            onClick={() => onChoose(place)}
          >
            {wordsOf(place)}
          </li>
        ))}
      </ul>
      {places.length === 0 && (
        <p className="text-ink-2">No part is called that. An address begins with https:// .</p>
      )}
    </div>
  )
}
