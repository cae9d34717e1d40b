import { Dialog } from 'radix-ui'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import { useCourses, useTemplates } from '../../api/queries.ts'
import { SearchList } from '../../controls/SearchList.tsx'
import { tellApart } from '../../controls/tellApart.ts'
import { doOnScreen } from './actsOnScreen.ts'
import { hitsIn, rankOf } from './hits.ts'
import { keyActs, placeSelector, placeWords, pressOn, type KeyAct, type KeyPlace } from './keys.ts'
import type { Under } from './useUnder.ts'

/** Something to go to or to do, by its name. */
interface Option {
  id: string
  text: string
  /** Where it stands, or what it is. */
  about: string
  /** The row it stands in, by which it is found as well; empty where it stands alone. */
  row: string
  keys: string
  /** Done once the box is closed and the focus is back where it was. */
  does: () => void
}

/** Somewhere to go, or something of the person to do, wherever they are. */
export interface Place {
  name: string
  does: () => void
}

const mostShown = 60
const places: readonly KeyPlace[] = ['everywhere', 'sheet', 'page', 'question']

/** What a key of a place is pressed on: what had the focus last, where it stands there. */
const standsIn = (stood: HTMLElement | null, { place, edits }: KeyAct): HTMLElement | null =>
  place !== 'everywhere' &&
  stood?.isConnected &&
  stood.closest(placeSelector[place]) &&
  !(edits && stood.closest('[data-read-only]'))
    ? stood
    : null

const Hits = ({ text, typed }: { text: string; typed: string }) =>
  hitsIn(text, typed).map((stretch, i) =>
    stretch.hit ? (
      <mark key={i} className="bg-straw-soft text-ink">
        {stretch.text}
      </mark>
    ) : (
      <span key={i}>{stretch.text}</span>
    ),
  )

/** Find a screen, a template or a course and go there, or do by its name whatever can be done on the screen; also the list of keys. */
export const FindOrDo = ({
  over,
  onClose,
  places: anywhere,
}: {
  /** What it was opened over; null: it is closed. */
  over: Under | null
  onClose: () => void
  places: readonly Place[]
}) => {
  const chosen = useRef<Option | null>(null)
  const focus = useRef<HTMLElement | null>(null)
  useEffect(() => {
    if (over) focus.current = over.focus
  }, [over])
  return (
    <Dialog.Root open={over !== null} onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/30" />
        <Dialog.Content
          className="fixed left-1/2 top-[5vh] z-40 max-h-[90vh] w-[40rem] max-w-[95vw] -translate-x-1/2 overflow-y-auto border border-line-strong bg-sheet p-4"
          aria-describedby={undefined}
          onCloseAutoFocus={(event) => {
            event.preventDefault()
            if (focus.current?.isConnected) focus.current.focus()
            chosen.current?.does()
            chosen.current = null
          }}
        >
          <Dialog.Title className="text-lg">Find or do</Dialog.Title>
          {over && (
            <Found
              over={over}
              anywhere={anywhere}
              onChoose={(option) => {
                chosen.current = option
                onClose()
              }}
              onClose={onClose}
            />
          )}
          <Keys />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}

const Found = ({
  over,
  anywhere,
  onChoose,
  onClose,
}: {
  over: Under
  anywhere: readonly Place[]
  onChoose: (option: Option) => void
  onClose: () => void
}) => {
  const navigate = useNavigate()
  const courses = useCourses()
  const templates = useTemplates()
  const [typed, setTyped] = useState('')
  const all = useMemo(() => {
    const apart = tellApart(courses.data ?? [])
    const go = (to: string) => () => void navigate(to)
    const here: Option[] = [
      ...over.acts.map(({ name, within, element }, i) => ({
        id: `act-${i}`,
        text: name,
        about: within === '' ? 'on this screen' : within,
        row: within,
        keys: element.getAttribute('aria-keyshortcuts') ?? '',
        does: () => doOnScreen(element),
      })),
      ...keyActs.flatMap((act, i): Option[] => {
        const { press } = act
        const on = standsIn(over.stood, act)
        return press && on
          ? [
              {
                id: `key-${i}`,
                text: act.does,
                about: placeWords[act.place].toLowerCase(),
                row: '',
                keys: act.keys,
                does: () => pressOn(on, press),
              },
            ]
          : []
      }),
    ]
    const elsewhere: Option[] = [
      ...anywhere.map(({ name, does }, i) => ({
        id: `place-${i}`,
        text: name,
        about: '',
        row: '',
        keys: '',
        does,
      })),
      ...(templates.data ?? []).map(({ key, title }) => ({
        id: `template-${key}`,
        text: title,
        about: 'template',
        row: '',
        keys: '',
        does: go(`/templates/${key}`),
      })),
      ...(courses.data ?? []).map((course) => ({
        id: `course-${course.id}`,
        text: `${course.code} ${course.title}, ${apart.get(course.platformId)}`,
        about: 'course',
        row: '',
        keys: '',
        does: go(`/courses/${course.id}`),
      })),
    ]
    return [...elsewhere.slice(0, anywhere.length), ...here, ...elsewhere.slice(anywhere.length)]
  }, [over, anywhere, courses.data, templates.data, navigate])
  const find = (wanted: string): Option[] =>
    all
      .flatMap((option, at) => {
        const rank =
          rankOf(option.text, wanted) ??
          (option.row === '' ? null : rankOf(`${option.text} ${option.row}`, wanted))
        return rank === null ? [] : [{ option, rank, at }]
      })
      .sort((one, other) => one.rank - other.rank || one.at - other.at)
      .slice(0, mostShown)
      .map(({ option }) => option)
  return (
    <SearchList
      label="Screen, template, course, or what you want to do"
      placeholder=""
      listLabel="What was found"
      find={find}
      onTyped={setTyped}
      idOf={({ id }) => id}
      draw={({ text, about, keys }) => (
        <span className="flex items-baseline gap-3">
          <span className="min-w-0 break-words">
            <Hits text={text} typed={typed} />
            {about !== '' && <span className="text-ink-2"> · {about}</span>}
          </span>
          {keys !== '' && (
            <kbd className="ml-auto whitespace-nowrap font-mono text-[12px] text-ink-2">{keys}</kbd>
          )}
        </span>
      )}
      none="Nothing of this name can be found or done here."
      onChoose={onChoose}
      onClose={onClose}
    />
  )
}

const Keys = () => (
  <>
    <h3 className="mt-4">Keys</h3>
    {places.map((place) => (
      <section key={place} aria-label={placeWords[place]}>
        <h4 className="mt-2 text-[12.5px] font-semibold text-ink-2">{placeWords[place]}</h4>
        <dl className="grid grid-cols-[minmax(7rem,13rem)_1fr] gap-x-2 gap-y-0.5 text-ink-2">
          {keyActs
            .filter((act) => act.place === place)
            .map(({ keys, does }) => (
              <div key={keys + does} className="contents">
                <dt className="font-mono text-[12px]">{keys}</dt>
                <dd>{does}</dd>
              </div>
            ))}
        </dl>
      </section>
    ))}
  </>
)
