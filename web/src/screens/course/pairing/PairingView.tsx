import { memo, useMemo, useRef, useState, type KeyboardEvent } from 'react'
import type { CheckResult, Course, Facts, FindingPlace, Template } from '@wickerframe/core'
import type { CourseCare, MeInCourse } from '@wickerframe/contract'
import { Choice, Pick } from '../../../controls/controls.tsx'
import { useAddress } from '../../../shell/useAddress.ts'
import {
  filteredRows,
  pairingRows,
  type LeftRow,
  type PairingRows,
  type RightRow,
  type Strand,
} from './pairingRows.ts'
import { PairPanel, type ChosenPair } from './PairPanel.tsx'
import { PairTable } from './PairTable.tsx'
import { Strands, strandsWidth } from './Strands.tsx'

const rowHeight = 31
const moduleGap = 12
/** Middle of a card and of a module's line, from the top of the row. */
const cardMiddle = 13
const moduleMiddle = 17

/** Where the middle of each row stands, in pixels from the top. */
const layOut = (
  rows: readonly { id: string; isModule: boolean }[],
): { at: Map<string, number>; height: number } => {
  const at = new Map<string, number>()
  let y = 0
  for (const row of rows) {
    if (row.isModule) y += moduleGap
    at.set(row.id, y + (row.isModule ? moduleMiddle : cardMiddle))
    y += rowHeight
  }
  return { at, height: y }
}

interface CardProps {
  id: string
  side: 'left' | 'right'
  name: string
  kind: string
  isModule: boolean
  /** Colour and line of its border: said in words by `note`. */
  border: string
  note: string
  chosen: boolean
  reached: boolean
}

/** One part or item. It is drawn again only when it changes itself, not when another one is pointed at. */
const Card = memo(
  ({ id, side, name, kind, isModule, border, note, chosen, reached }: CardProps) => (
    <li style={{ height: rowHeight, marginTop: isModule ? moduleGap : 0 }}>
      <button
        type="button"
        data-side={side}
        data-row={id}
        tabIndex={reached ? 0 : -1}
        aria-pressed={chosen}
        className={
          isModule
            ? `flex w-full gap-2 border-b border-line-strong pt-1.5 text-left font-serif font-semibold ${chosen ? 'bg-sheet' : ''} ${border}`
            : `flex h-[26px] w-full items-center gap-2 border px-2 text-left ${chosen ? 'bg-tide-soft' : 'bg-sheet'} ${border}`
        }
        title={name}
      >
        {!isModule && <span className="w-16 shrink-0 text-[11px] text-ink-3">{kind}</span>}
        <span className="truncate">{name}</span>
        <span
          className={`ml-auto shrink-0 text-[11px] ${isModule ? 'font-sans font-normal text-ink-3' : 'font-mono'}`}
        >
          {note}
        </span>
      </button>
    </li>
  ),
)
Card.displayName = 'Card'

const leftBorder = (row: LeftRow): string =>
  row.loose === 'open'
    ? 'border-dashed border-rust text-rust'
    : row.loose
      ? 'border-dashed border-line text-ink-3'
      : 'border-line'
const rightBorder = (row: RightRow): string =>
  row.extra ? 'border-dashed border-line-strong text-ink-2' : 'border-line'

const Columns = ({
  rows,
  chosen,
  onChoose,
}: {
  rows: PairingRows
  chosen: string | null
  onChoose: (id: string | null) => void
}) => {
  const frame = useRef<HTMLDivElement>(null)
  const [pointed, setPointed] = useState<string | null>(null)
  const left = useMemo(() => layOut(rows.left), [rows])
  const right = useMemo(() => layOut(rows.right), [rows])
  const strandOf = useMemo(
    () =>
      new Map<string, Strand>(
        rows.strands.flatMap((strand) => [
          [strand.left, strand],
          [strand.right, strand],
        ]),
      ),
    [rows],
  )
  const shown = pointed ?? chosen
  const strand = shown === null ? null : (strandOf.get(shown) ?? null)
  const isShown = (id: string) =>
    id === shown || (strand !== null && (strand.left === id || strand.right === id))
  const rowAt = (target: EventTarget): HTMLElement | null =>
    target instanceof Element ? target.closest<HTMLElement>('[data-row]') : null
  const step = (event: KeyboardEvent) => {
    const row = rowAt(event.target)
    if (!row) return
    const side = row.dataset['side'] === 'left' ? 'left' : 'right'
    const id = row.dataset['row'] ?? ''
    const list = side === 'left' ? rows.left : rows.right
    const i = list.findIndex((row) => row.id === id)
    const partner = strandOf.get(id)
    const next =
      event.key === 'ArrowDown'
        ? list[i + 1]?.id
        : event.key === 'ArrowUp'
          ? list[i - 1]?.id
          : event.key === 'Home'
            ? list[0]?.id
            : event.key === 'End'
              ? list.at(-1)?.id
              : event.key === 'ArrowRight' && side === 'left'
                ? partner?.right
                : event.key === 'ArrowLeft' && side === 'right'
                  ? partner?.left
                  : undefined
    if (next === undefined) return
    event.preventDefault()
    onChoose(next)
    frame.current?.querySelector<HTMLElement>(`[data-row="${CSS.escape(next)}"]`)?.focus()
  }
  const first = chosen ?? rows.left[0]?.id ?? null
  return (
    <div
      ref={frame}
      className="grid min-w-[38rem]"
      style={{ gridTemplateColumns: `minmax(0,1fr) ${strandsWidth}px minmax(0,1fr)` }}
      onPointerOver={(event) => setPointed(rowAt(event.target)?.dataset['row'] ?? null)}
      onPointerLeave={() => setPointed(null)}
      onFocus={(event) => {
        const id = rowAt(event.target)?.dataset['row']
        if (id !== undefined) onChoose(id)
      }}
      onClick={(event) => {
        const id = rowAt(event.target)?.dataset['row']
        if (id !== undefined) onChoose(id)
      }}
      onKeyDown={step}
    >
      <div>
        <h3 className="h-[18px] font-sans text-[12px] leading-[18px] font-normal text-ink-2">
          Expected by the template
        </h3>
        <ul>
          {rows.left.map((row) => (
            <Card
              key={row.id}
              id={row.id}
              side="left"
              name={row.name}
              kind={row.kind}
              isModule={row.isModule}
              border={leftBorder(row)}
              note={row.loose === 'open' ? 'missing' : row.isModule ? '' : row.strength}
              chosen={isShown(row.id)}
              reached={row.id === first}
            />
          ))}
        </ul>
      </div>
      <Strands
        rows={rows}
        left={left.at}
        right={right.at}
        height={Math.max(left.height, right.height)}
        chosen={strand}
      />
      <div>
        <h3 className="h-[18px] font-sans text-[12px] leading-[18px] font-normal text-ink-2">
          Found in the course
        </h3>
        <ul>
          {rows.right.map((row) => (
            <Card
              key={row.id}
              id={row.id}
              side="right"
              name={row.name}
              kind={row.kind}
              isModule={row.isModule}
              border={rightBorder(row)}
              note={row.extra && !row.isModule ? 'own' : row.note}
              chosen={isShown(row.id)}
              reached={row.id === first}
            />
          ))}
        </ul>
      </div>
    </div>
  )
}

/** Expected on the left, found on the right, strands joining what was matched; beside them, why, and what can be done. */
export const PairingView = ({
  template,
  facts,
  course,
  result,
  care,
  courseId,
  me,
  onMend,
  onWaive,
  onShowPage,
}: {
  template: Template
  facts: Facts
  course: Course
  result: CheckResult
  care: CourseCare
  courseId: number
  me: MeInCourse
  onMend: (places: FindingPlace[]) => void
  onWaive: (place: FindingPlace) => void
  onShowPage: (itemId: string) => void
}) => {
  const { search, set } = useAddress()
  const departures = search.get('all') !== '1'
  const musts = search.get('strength') === 'must'
  const module = search.get('module') ?? ''
  const asTable = search.get('as') === 'table'
  const [chosen, setChosen] = useState<string | null>(null)
  const all = useMemo(
    () => pairingRows(template, facts, course, result),
    [template, facts, course, result],
  )
  const rows = useMemo(
    () => all && filteredRows(all, { departures: departures && module === '', musts, module }),
    [all, departures, musts, module],
  )
  if (!all || !rows)
    return (
      <p className="py-6 text-ink-2">
        The template does not fit this course, so nothing can be paired.
      </p>
    )
  const hidden = all.left.length - rows.left.length
  const strand =
    chosen === null
      ? null
      : (rows.strands.find((strand) => strand.left === chosen || strand.right === chosen) ?? null)
  const pair: ChosenPair | null =
    chosen === null
      ? null
      : {
          strand,
          left: rows.left.find((row) => row.id === (strand?.left ?? chosen)) ?? null,
          right: rows.right.find((row) => row.id === (strand?.right ?? chosen)) ?? null,
        }
  const doubtful = all.strands.filter((strand) => strand.look === 'doubtful').length
  return (
    <div>
      <div className="mb-2 flex flex-wrap items-baseline gap-2">
        <Choice
          pressed={departures && module === ''}
          onClick={() => set({ all: null, module: null })}
        >
          Modules with something open
        </Choice>
        <Choice
          pressed={!departures && module === ''}
          onClick={() => set({ all: '1', module: null })}
        >
          The whole course
        </Choice>
        <Choice pressed={musts} onClick={() => set({ strength: musts ? null : 'must' })}>
          only musts
        </Choice>
        <Pick
          inline
          label="module"
          className="max-w-64"
          options={[
            { value: '', text: 'all' },
            ...all.left
              .filter((row) => row.isModule)
              .map((row) => ({ value: row.id, text: row.name })),
          ]}
          value={module}
          onChange={(event) => set({ module: event.target.value || null })}
        />
        <Choice pressed={asTable} onClick={() => set({ as: asTable ? null : 'table' })}>
          as a table
        </Choice>
        <span className="ml-auto text-ink-3">
          {hidden > 0 && `${hidden} parts folded away`}
          {doubtful > 0 && ` · ${doubtful} doubtful`}
        </span>
      </div>
      <div className="grid gap-x-6 lg:grid-cols-[minmax(0,1fr)_20rem]">
        {rows.left.length === 0 && rows.right.length === 0 ? (
          <p className="py-6 text-ink-2">Everything is where the template has it.</p>
        ) : asTable ? (
          <PairTable rows={rows} />
        ) : (
          <div className="-m-1 overflow-x-auto p-1">
            <Columns rows={rows} chosen={chosen} onChoose={setChosen} />
          </div>
        )}
        <div className="lg:sticky lg:top-4 lg:self-start">
          <PairPanel
            chosen={pair}
            rows={all}
            result={result}
            care={care}
            courseId={courseId}
            me={me}
            asOf={result.asOf}
            onMend={onMend}
            onWaive={onWaive}
            onShowPage={onShowPage}
          />
        </div>
      </div>
    </div>
  )
}
