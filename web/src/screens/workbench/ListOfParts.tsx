import { memo, useCallback, useDeferredValue, useMemo, useState } from 'react'
import {
  itemKinds,
  kindWords,
  problemsOfRow,
  readListed,
  saidFields,
  type ListedRow,
} from '@wickerframe/core'
import { Button } from '../../controls/controls.tsx'
import { Dialog } from '../../controls/Dialog.tsx'

/** A list that was pasted, or is still to be written. */
export interface Listing {
  text: string
  html: string
  /** Writes what was pasted into cells that are there already; null where it was not pasted upon any. */
  intoCells: (() => void) | null
}

type Kind = ListedRow['kind']
const kinds: readonly Kind[] = ['module', ...itemKinds]
const said = { strength: 'strength', audience: 'seen by', due: 'due', points: 'points', may: 'may' }
const field = 'w-full border border-line-strong bg-sheet px-1.5 py-0.5'

interface Row {
  id: number
  row: ListedRow
}

/** One row before it is taken: what it is called, its kind and its repeat can be set right. */
const ListedLine = memo(
  ({
    id,
    row,
    isModule,
    onChange,
    onLeaveOut,
  }: Row & {
    isModule: boolean
    onChange: (id: number, change: Partial<ListedRow>) => void
    onLeaveOut: (id: number) => void
  }) => {
    const problems = problemsOfRow(row)
    const more = saidFields.flatMap((name) =>
      name !== 'repeats' && row[name] !== '' && !problems[name]
        ? [`${said[name]} ${row[name]}`]
        : [],
    )
    const wrong = Object.entries(problems).map(([name, problem]) =>
      name === 'name' || name === 'repeats'
        ? problem
        : `“${row[name as keyof typeof said]}” is left out: ${problem}`,
    )
    return (
      <li className="grid grid-cols-[1fr_8rem_11rem_1.75rem] items-start gap-2 border-b border-line py-0.5">
        <div style={{ paddingLeft: `${row.depth * 1.25}rem` }}>
          <input
            aria-label="Named"
            className={`${field} font-mono text-[12.5px] ${problems.name ? 'border-rust' : ''}`}
            value={row.name}
            onChange={(event) => onChange(id, { name: event.target.value })}
          />
          {more.length > 0 && <p className="text-[12.5px] text-ink-3">{more.join(' · ')}</p>}
          {wrong.map((problem) => (
            <p key={problem} className="text-[12.5px] text-rust">
              {problem}
            </p>
          ))}
        </div>
        <select
          aria-label={`Kind of ${row.name}`}
          className={field}
          disabled={isModule}
          title={isModule ? 'Others stand in it' : undefined}
          value={isModule ? 'module' : row.kind}
          onChange={(event) => {
            const kind = kinds.find((one) => one === event.target.value)
            if (kind) onChange(id, { kind })
          }}
        >
          {kinds.map((kind) => (
            <option key={kind} value={kind}>
              {kindWords(kind)}
            </option>
          ))}
        </select>
        <input
          aria-label={`Repeats of ${row.name}`}
          placeholder="once"
          className={`${field} ${problems.repeats ? 'border-rust' : ''}`}
          value={row.repeats}
          onChange={(event) => onChange(id, { repeats: event.target.value })}
        />
        <button
          type="button"
          aria-label={`Leave out ${row.name}`}
          className="size-[24px] cursor-pointer text-ink-3"
          onClick={() => onLeaveOut(id)}
        >
          ×
        </button>
      </li>
    )
  },
)

const numbered = (rows: readonly ListedRow[]): Row[] => rows.map((row, id) => ({ id, row }))
const count = (rows: number): string => `${rows} ${rows === 1 ? 'row' : 'rows'}`

/** A list as it would become rows of the outline, shown before it is taken. */
export const ListOfParts = ({
  listing,
  onTake,
  onClose,
}: {
  listing: Listing
  onTake: (rows: ListedRow[]) => void
  onClose: () => void
}) => {
  const isWritten = listing.text === '' && listing.html === ''
  const [text, setText] = useState(listing.text)
  // A long list is read when there is time, so that typing does not wait for it.
  const readText = useDeferredValue(text)
  const read = useMemo(() => readListed(readText, listing.html), [readText, listing.html])
  const [rows, setRows] = useState<Row[]>(() => numbered(read.rows))
  const [rowsOf, setRowsOf] = useState(read)
  if (rowsOf !== read) {
    setRowsOf(read)
    setRows(numbered(read.rows))
  }
  const onChange = useCallback(
    (id: number, change: Partial<ListedRow>) =>
      setRows((before) =>
        before.map((one) => (one.id === id ? { id, row: { ...one.row, ...change } } : one)),
      ),
    [],
  )
  /** What stands in it comes out by one step. */
  const onLeaveOut = useCallback(
    (id: number) =>
      setRows((before) => {
        const at = before.findIndex((one) => one.id === id)
        const depth = before[at]?.row.depth ?? 0
        const end = before.findIndex(({ row }, i) => i > at && row.depth <= depth)
        return before.flatMap((one, i) =>
          i === at
            ? []
            : i > at && (end < 0 || i < end)
              ? [{ ...one, row: { ...one.row, depth: one.row.depth - 1 } }]
              : [one],
        )
      }),
    [],
  )
  const isNamed = rows.every(({ row }) => !problemsOfRow(row).name)
  const repeatsRead = rows.every(({ row }) => !problemsOfRow(row).repeats)
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="A list of parts"
      explains={
        isWritten
          ? 'One part to a line; what is indented or has a bullet stands in the line above. “Weeks 1–15”, “(each week)” and “× 3” repeat.'
          : 'Kinds and repeats are guessed from words. Set right what is not as you mean it; nothing is in the outline yet.'
      }
    >
      {isWritten && (
        <textarea
          aria-label="The list"
          rows={8}
          autoFocus
          className="mt-3 w-full border border-line-strong bg-sheet p-2 font-mono text-[13px]"
          placeholder={
            'Start here\n  Welcome\n  Syllabus quiz\nWeeks 1–15\n  Overview\n  Discussion'
          }
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      )}
      {read.notes.map((note) => (
        <p key={note} className="mt-2 border-l-4 border-slate bg-band px-3 py-1">
          {note}
        </p>
      ))}
      {rows.length > 0 && (
        <>
          <div
            aria-hidden="true"
            className="mt-3 grid grid-cols-[1fr_8rem_11rem_1.75rem] gap-2 border-b border-line-strong text-[12.5px] font-semibold"
          >
            <span>Named</span>
            <span>Kind</span>
            <span>Repeats</span>
          </div>
          <ul aria-label="Rows as they will come">
            {rows.map(({ id, row }, i) => (
              <ListedLine
                key={id}
                id={id}
                row={row}
                isModule={(rows[i + 1]?.row.depth ?? 0) > row.depth}
                onChange={onChange}
                onLeaveOut={onLeaveOut}
              />
            ))}
          </ul>
        </>
      )}
      <p className="sticky -bottom-6 -mb-6 mt-3 flex flex-wrap gap-2 bg-sheet py-3">
        <Button
          shape="main"
          disabled={rows.length === 0 || !isNamed || !repeatsRead || readText !== text}
          onClick={() => onTake(rows.map(({ row }) => row))}
        >
          {rows.length === 0 ? 'Put in' : `Put in ${count(rows.length)}`}
        </Button>
        {listing.intoCells && (
          <Button
            onClick={() => {
              listing.intoCells?.()
              onClose()
            }}
          >
            Write over the cells from here on
          </Button>
        )}
        <Button onClick={onClose}>Cancel</Button>
      </p>
    </Dialog>
  )
}
