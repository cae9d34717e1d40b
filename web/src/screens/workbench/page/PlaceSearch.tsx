import { holdsWords, plainLetters, SearchList } from '../../../controls/SearchList.tsx'
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

/** Parts whose names hold every word, those that begin with them first; after them the address, where it is one. */
export const placesFor = (typed: string, parts: PageSources['parts']): LinkPlace[] => {
  const first = plainLetters(typed).trim().split(/\s+/)[0] ?? ''
  const begins = (name: string): number => Number(plainLetters(name).startsWith(first))
  const found = parts
    .filter(({ name }) => holdsWords(name, typed))
    .toSorted((a, b) => begins(b.name) - begins(a.name))
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
}) => (
  <SearchList
    label="Leads to: a part by its name, or an address"
    placeholder="welcome, or https://"
    listLabel="Places"
    none="No part is called that. An address begins with https:// ."
    find={(typed) => placesFor(typed, parts)}
    idOf={(place) => ('part' in place ? place.part : place.address)}
    draw={wordsOf}
    onChoose={onChoose}
    onClose={onClose}
  />
)
