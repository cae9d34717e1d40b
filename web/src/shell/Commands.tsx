import { Dialog } from 'radix-ui'
import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { useCourses } from '../api/queries.ts'
import { tellApart } from '../controls/tellApart.ts'

const keys: readonly (readonly [string, string])[] = [
  ['/ or ?', 'this box: find or do'],
  ['arrows, Page ↑ ↓', 'go from cell to cell in the outline sheet'],
  ['Enter, F2 or typing', 'edit the cell; Enter, Tab or Esc to finish'],
  ['← → in the first cell', 'close or open what stands under the row'],
  ['F4', 'open the row’s slip'],
  ['Ctrl Enter', 'a new row; with Shift a new module'],
  ['Enter, Tab in a new row’s name', 'the next new row; deeper, with Shift out again'],
  ['Alt ↑ ↓ → ←', 'move the row up, down, into the module above, out'],
  ['Shift ↑ ↓, Ctrl A', 'select rows'],
  ['Ctrl D', 'fill the topmost selected cell down'],
  ['Ctrl C, X, V', 'copy, cut and paste rows, between templates too'],
  ['Delete', 'empty the cell; on a name, or several rows, remove them'],
  ['Ctrl Z, Ctrl Y', 'undo, redo'],
  ['on a page: arrows', 'go from block to block, and from text to text'],
  ['Enter, Esc', 'write in the block; look at it as a whole'],
  ['Ctrl Enter', 'a text becomes two; on a whole block: a new text under it'],
  ['Backspace at the start', 'a text and the one above it become one'],
  ['Ctrl D, Alt ↑ ↓', 'the block once more; move it'],
]

/** Find a screen or a course and go there; also the list of keys. */
export const Commands = ({
  open,
  onOpenChange,
  places,
}: {
  open: boolean
  onOpenChange: (open: boolean) => void
  places: readonly { to: string; name: string }[]
}) => {
  const navigate = useNavigate()
  const courses = useCourses()
  const [wanted, setWanted] = useState('')
  const found = useMemo(() => {
    const word = wanted.trim().toLowerCase()
    const apart = tellApart(courses.data ?? [])
    const all = [
      ...places.map((place) => ({ to: place.to, text: place.name })),
      ...(courses.data ?? []).map((course) => ({
        to: `/courses/${course.id}`,
        text: `${course.code} ${course.title}, ${apart.get(course.platformId)}`,
      })),
    ]
    return all.filter(({ text }) => text.toLowerCase().includes(word)).slice(0, 9)
  }, [wanted, places, courses.data])
  const go = (to: string) => {
    onOpenChange(false)
    setWanted('')
    void navigate(to)
  }
  return (
    <Dialog.Root open={open} onOpenChange={onOpenChange}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/30" />
        <Dialog.Content
          className="fixed left-1/2 top-20 w-[34rem] max-w-[95vw] -translate-x-1/2 border border-line-strong bg-sheet p-4"
          aria-describedby={undefined}
        >
          <Dialog.Title className="text-lg">Find or do</Dialog.Title>
          <input
            autoFocus
            aria-label="Screen or course"
            className="mt-2 w-full border border-line-strong bg-paper px-2 py-1.5"
            value={wanted}
            onChange={(event) => setWanted(event.target.value)}
            onKeyDown={(event) => event.key === 'Enter' && found[0] && go(found[0].to)}
          />
          <ul className="mt-2">
            {found.map(({ to, text }) => (
              <li key={to}>
                <button
                  type="button"
                  className="w-full px-2 py-1 text-left hover:bg-band"
                  onClick={() => go(to)}
                >
                  {text}
                </button>
              </li>
            ))}
          </ul>
          <h3 className="mt-4">Keys</h3>
          <dl className="mt-1 grid grid-cols-[11rem_1fr] gap-y-0.5 text-ink-2">
            {keys.map(([key, does]) => (
              <div key={key} className="contents">
                <dt className="font-mono text-[12px]">{key}</dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
