import { useState } from 'react'
import {
  freshKey,
  navigationPlaces,
  NavigationTarget,
  partsWithin,
  strengths,
  targetIn,
  targetWords,
  type NavigationEntry,
  type Template,
} from '@wickerframe/core'
import { Button, Pick } from '../../../controls/controls.tsx'
import { holdsWords, SearchList } from '../../../controls/SearchList.tsx'
import { TextLine } from '../../../controls/typed.tsx'
import { placesFor } from '../page/PlaceSearch.tsx'

interface Place {
  /** null: what the platform has under the entry’s name. */
  to: string | null
  words: string
}
const itsOwn: Place = { to: null, words: 'what the platform has under that name' }

/** Where an entry may lead: places of every platform, parts, an address where one is typed. */
const placesOf = (template: Template, typed: string): Place[] => {
  const everywhere: Place[] = [
    itsOwn,
    ...Object.entries(navigationPlaces).map(([place, words]) => ({ to: `place:${place}`, words })),
  ].filter(({ words }) => holdsWords(words, typed))
  const parts = partsWithin(template.parts).map(({ key, name }) => ({ key, name }))
  const others = placesFor(typed, { parts }).flatMap((place): Place[] =>
    'part' in place
      ? [{ to: `part:${place.part}`, words: place.name }]
      : 'address' in place
        ? [{ to: place.address, words: place.address }]
        : [],
  )
  // Mail and telephone are no places to go to.
  return [...everywhere, ...others].filter(
    ({ to }) => to === null || NavigationTarget.safeParse(to).success,
  )
}

const leadsTo = (template: Template, { to }: NavigationEntry): string => {
  if (to === undefined) return itsOwn.words
  const names = new Map(partsWithin(template.parts).map(({ key, name }) => [key, name]))
  const isGone = targetIn('part', to) !== null && !names.has(targetIn('part', to) ?? '')
  return isGone
    ? 'a part that is not there any more'
    : targetWords(to, (key) => `“${names.get(key) ?? key}”`)
}

/** The navigation: entries in their order, where each leads, and who sees it. */
export const NavigationEntries = ({
  template,
  set,
}: {
  template: Template
  set: (field: string[], was: unknown, value: unknown) => void
}) => {
  const { navigation } = template
  const [searching, setSearching] = useState<string | null>(null)
  /** The entry that has just come, and the one whose search was just left: the cursor goes there. */
  const [fresh, setFresh] = useState<string | null>(null)
  const [left, setLeft] = useState<string | null>(null)
  const close = () => {
    setLeft(searching)
    setSearching(null)
  }
  const move = (index: number, to: number) => {
    const list = [...navigation]
    const [entry] = list.splice(index, 1)
    if (entry) set(['navigation'], navigation, [...list.slice(0, to), entry, ...list.slice(to)])
  }
  return (
    <section className="bg-sheet p-4 lg:col-span-2">
      <h2 className="text-[18px]">Navigation</h2>
      <p className="text-ink-2">
        One list, from top to bottom as students see it; what is hidden says so. An entry leads to a
        part, to a place that every platform has, or to an address.
      </p>
      <ol className="mt-2 divide-y divide-line border-y border-line">
        {navigation.map((entry, i) => (
          <li
            key={entry.key}
            className={`flex flex-wrap gap-3 py-1.5 ${searching === entry.key ? 'items-start' : 'items-center'}`}
          >
            <span className="w-6 text-ink-3">{i + 1}</span>
            <TextLine
              label=""
              aria-label={`Entry ${i + 1}`}
              autoFocus={fresh === entry.key}
              onFocus={(event) => fresh === entry.key && event.target.select()}
              value={entry.label}
              onDone={(label) =>
                label.trim() !== '' && set(['navigation', entry.key, 'label'], entry.label, label)
              }
            />
            {searching === entry.key ? (
              <SearchList
                label={`“${entry.label}” leads to: a part, a place, or an address`}
                placeholder="grades, welcome, or https://"
                listLabel="Places"
                none="Nothing is called that. An address begins with https:// ."
                find={(typed) => placesOf(template, typed)}
                idOf={({ to }) => to ?? ''}
                draw={({ words }) => words}
                chosen={entry.to ?? ''}
                onChoose={({ to }) => {
                  close()
                  set(['navigation', entry.key, 'to'], entry.to, to)
                }}
                onClose={close}
              />
            ) : (
              <Button
                shape="word"
                aria-label={`“${entry.label}” leads to ${leadsTo(template, entry)}`}
                autoFocus={left === entry.key}
                className="w-80 truncate text-left"
                onClick={() => setSearching(entry.key)}
              >
                leads to {leadsTo(template, entry)}
              </Button>
            )}
            <Pick
              inline
              label=""
              aria-label={`${entry.label} is`}
              value={entry.hidden ? 'hidden' : 'shown'}
              onChange={(event) =>
                set(
                  ['navigation', entry.key, 'hidden'],
                  entry.hidden,
                  event.target.value === 'hidden',
                )
              }
              options={[
                { value: 'shown', text: 'shown' },
                { value: 'hidden', text: 'hidden from students' },
              ]}
            />
            <Pick
              inline
              label=""
              aria-label={`Strength of ${entry.label}`}
              value={entry.strength}
              onChange={(event) =>
                set(['navigation', entry.key, 'strength'], entry.strength, event.target.value)
              }
              options={strengths.map((strength) => ({ value: strength, text: strength }))}
            />
            <span className="ml-auto flex gap-3">
              <Button shape="word" disabled={i === 0} onClick={() => move(i, i - 1)}>
                up
              </Button>
              <Button
                shape="word"
                disabled={i === navigation.length - 1}
                onClick={() => move(i, i + 1)}
              >
                down
              </Button>
              <Button shape="word" onClick={() => set(['navigation', entry.key], entry, null)}>
                remove
              </Button>
            </span>
          </li>
        ))}
      </ol>
      <Button
        className="mt-2"
        onClick={() => {
          const key = freshKey('entry', new Set(navigation.map(({ key }) => key)))
          set(['navigation', key], null, {
            key,
            label: 'New entry',
            hidden: false,
            strength: 'should',
          })
          setFresh(key)
        }}
      >
        Add an entry
      </Button>
    </section>
  )
}
