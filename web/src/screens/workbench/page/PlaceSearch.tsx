import { handoutTo } from '@wickerframe/core'
import { holdsWords, plainLetters, SearchList } from '../../../controls/SearchList.tsx'
import type { PageSources } from './pageSources.ts'

/** Where a link leads: a part of the template, one of its files, or an address. */
export type LinkPlace =
  | { part: string; name: string }
  | { file: string; name: string }
  | { address: string }

const mostShown = 8

/** What was typed as an address, where it is one: with its scheme, as people leave it out. */
export const addressTyped = (typed: string): string | null => {
  const text = typed.trim()
  if (/^(?:https?:\/\/|mailto:|tel:)\S+$/i.test(text)) return text
  if (/^[^\s@/]+@[^\s@/]+\.[a-z]{2,}$/i.test(text)) return `mailto:${text}`
  return /^(?:[a-z0-9-]+\.)+[a-z]{2,}(?:[/?#]\S*)?$/i.test(text) ? `https://${text}` : null
}

/** Parts and files whose names hold every word, those that begin with them first; before them the address, where it is one. */
export const placesFor = (
  typed: string,
  { parts, files = [] }: Partial<Omit<PageSources, 'parts'>> & Pick<PageSources, 'parts'>,
): LinkPlace[] => {
  const first = plainLetters(typed).trim().split(/\s+/)[0] ?? ''
  const begins = ({ name }: { name: string }): number =>
    Number(plainLetters(name).startsWith(first))
  const found: LinkPlace[] = [
    ...parts.map(({ key, name }) => ({ part: key, name })),
    ...files.map(({ key, title }) => ({ file: key, name: title })),
  ]
    .filter(({ name }) => holdsWords(name, typed))
    .toSorted((a, b) => begins(b) - begins(a))
  const address = addressTyped(typed)
  return address === null
    ? found.slice(0, mostShown)
    : [{ address }, ...found.slice(0, mostShown - 1)]
}

const wordsOf = (place: LinkPlace): string =>
  'address' in place ? place.address : 'file' in place ? `${place.name} (file)` : place.name
const idOf = (place: LinkPlace): string =>
  'address' in place ? place.address : 'file' in place ? handoutTo(place.file) : place.part

/** Finds a part or a file by its name, or takes an address: arrows and Enter, or a press. */
export const PlaceSearch = ({
  sources,
  onChoose,
  onClose,
}: {
  sources: PageSources
  onChoose: (place: LinkPlace) => void
  onClose: () => void
}) => (
  <SearchList
    label="Leads to: a part or a file by its name, or an address"
    placeholder="welcome, or https://"
    listLabel="Places"
    none="Nothing is called that. An address begins with https:// ."
    find={(typed) => placesFor(typed, sources)}
    idOf={idOf}
    draw={wordsOf}
    onChoose={onChoose}
    onClose={onClose}
  />
)
