import { useVirtualizer } from '@tanstack/react-virtual'
import { memo, useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from 'react'
import { useNavigate } from 'react-router'
import type { ConformanceRow } from '@wickerframe/contract'
import { linesOf, openAt, type Band, type Line, type OpenAt } from './bands.ts'
import { columnAt, shownLetters, type Layout } from './layout.ts'
import {
  bandHeight,
  bandStrokes,
  courseHeight,
  courseStrokes,
  warpStrokes,
  type Strokes,
} from './strokes.ts'
import { StrokesOf } from './StrokesOf.tsx'
import { bandWords, crossingWords } from './words.ts'
import { WeaveHead } from './WeaveHead.tsx'

/** Where somebody looks: a line, and a column of it; null: its name. */
export interface Place {
  band: string
  row: ConformanceRow | null
  column: number | null
}

export const namesWidth = 236
/** Lines that are ready above and below what is in sight. */
const beyond = 6

/**
 * The college in one picture: bands of courses, the courses of those that are open, and at each crossing what is asked there.
 * Only what is in sight is there. One stop of the Tab key; arrows, Home, End and the page keys walk it, Enter opens.
 */
export const Weave = ({
  bands,
  open,
  layout,
  apart,
  onToggle,
  onLook,
  onPress,
}: {
  bands: readonly Band[]
  open: ReadonlySet<string>
  layout: Layout
  /** What tells courses apart that are called alike, by platform id. */
  apart: ReadonlyMap<string, string>
  onToggle: (band: string) => void
  onLook: (place: Place) => void
  onPress: (place: Place) => void
}) => {
  const scroll = useRef<HTMLDivElement>(null)
  const id = useId()
  const navigate = useNavigate()
  const lines = useMemo(() => linesOf(bands, open), [bands, open])
  const [at, setAt] = useState({ line: 0, column: 0 })
  const [isWalked, setWalked] = useState(false)
  const letters = useMemo(
    () =>
      new Map(
        bands.flatMap(({ rows }) =>
          rows.map((row) => [row.id, shownLetters(row.strands, layout.columns)] as const),
        ),
      ),
    [bands, layout],
  )
  const opens = useMemo(() => {
    const of = (rows: readonly ConformanceRow[]) =>
      openAt(
        rows.map((row) => letters.get(row.id) ?? ''),
        layout.columns.length,
      )
    return {
      all: of(bands.flatMap(({ rows }) => rows)),
      of: new Map(bands.map((band) => [band.key, of(band.rows)])),
    }
  }, [bands, letters, layout])
  const virtual = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroll.current,
    estimateSize: (index) => (lines[index]?.row ? courseHeight : bandHeight),
    overscan: beyond,
    getItemKey: (index) => {
      const line = lines[index]
      return line?.row ? line.row.id : `band ${line?.band.key ?? index}`
    },
    // Whoever scrolls does not wait for what comes into sight.
    useFlushSync: false,
  })
  useEffect(() => virtual.measure(), [virtual, lines])

  const go = (line: number, column: number) => {
    const to = {
      line: Math.max(0, Math.min(lines.length - 1, line)),
      column: Math.max(0, Math.min(layout.columns.length - 1, column)),
    }
    setAt(to)
    setWalked(true)
    virtual.scrollToIndex(to.line)
    const found = lines[to.line]
    if (found) onLook({ band: found.band.key, row: found.row, column: to.column })
  }
  const press = (line: Line | undefined, column: number | null) => {
    if (!line) return
    if (line.row) onPress({ band: line.band.key, row: line.row, column })
    else onToggle(line.band.key)
  }
  const page = Math.max(1, Math.floor((scroll.current?.clientHeight ?? 0) / courseHeight) - 2)
  const onKey = (event: KeyboardEvent) => {
    const moves: Readonly<Record<string, readonly [line: number, column: number]>> = {
      ArrowDown: [at.line + 1, at.column],
      ArrowUp: [at.line - 1, at.column],
      ArrowRight: [at.line, at.column + 1],
      ArrowLeft: [at.line, at.column - 1],
      PageDown: [at.line + page, at.column],
      PageUp: [at.line - page, at.column],
      Home: [event.ctrlKey ? 0 : at.line, 0],
      End: [event.ctrlKey ? lines.length - 1 : at.line, layout.columns.length - 1],
    }
    const move = moves[event.key]
    if (move) go(...move)
    else if (event.key === 'Enter' || event.key === ' ') press(lines[at.line], at.column)
    else return
    event.preventDefault()
  }
  const columnOf = (target: Element, clientX: number): number | null => {
    const drawing = target.closest('[data-line]')?.querySelector('[data-strands]')
    return drawing ? columnAt(layout, clientX - drawing.getBoundingClientRect().left) : null
  }
  const pointed = (target: EventTarget, clientX: number) => {
    if (!(target instanceof Element)) return null
    const index = target.closest<HTMLElement>('[data-line]')?.dataset['line']
    const line = index === undefined ? undefined : lines[Number(index)]
    return line ? { index: Number(index), line, column: columnOf(target, clientX) } : null
  }
  return (
    <div
      ref={scroll}
      role="treegrid"
      aria-label="Courses by what their templates ask"
      aria-rowcount={lines.length + 1}
      aria-colcount={layout.columns.length + 1}
      aria-activedescendant={isWalked ? `${id}-at` : undefined}
      tabIndex={0}
      className="max-h-[68vh] overflow-auto"
      onKeyDown={onKey}
      onFocus={() => setWalked(true)}
      onPointerMove={(event) => {
        const there = pointed(event.target, event.clientX)
        if (!there || (there.index === at.line && there.column === at.column)) return
        setAt({ line: there.index, column: there.column ?? at.column })
        onLook({ band: there.line.band.key, row: there.line.row, column: there.column })
      }}
      onClick={(event) => {
        const link = event.target instanceof Element ? event.target.closest('a') : null
        if (link) {
          // In another tab, or wherever the browser is told to.
          if (event.metaKey || event.ctrlKey || event.shiftKey || event.altKey) return
          event.preventDefault()
          void navigate(link.pathname)
          return
        }
        const there = pointed(event.target, event.clientX)
        if (there) press(there.line, there.column)
      }}
    >
      {/* The standing strands are longer than a short college: what is beyond its last line is not there to scroll to. */}
      <div style={{ width: namesWidth + layout.width, overflow: 'clip' }}>
        <WeaveHead layout={layout} open={opens.all} namesWidth={namesWidth} />
        <Warp layout={layout} />
        <div style={{ height: virtual.getTotalSize(), position: 'relative' }} role="presentation">
          {virtual.getVirtualItems().map((item) => {
            const line = lines[item.index]
            if (!line) return null
            const isAt = item.index === at.line && isWalked
            const label = isAt
              ? line.row
                ? crossingWords(line.row, layout, letters.get(line.row.id) ?? '', at.column)
                : bandWords(line.band, layout, opens.of.get(line.band.key) ?? [], at.column)
              : null
            return (
              <LineOfWeave
                key={item.key}
                index={item.index}
                top={item.start}
                line={line}
                layout={layout}
                letters={line.row ? (letters.get(line.row.id) ?? '') : ''}
                open={line.row ? null : (opens.of.get(line.band.key) ?? null)}
                isOpen={open.has(line.band.key)}
                apart={line.row ? (apart.get(line.row.platformId) ?? '') : ''}
                label={label}
                labelId={`${id}-at`}
                column={isAt ? at.column : null}
              />
            )
          })}
        </div>
      </div>
    </div>
  )
}

/** As high as the largest screens. */
const warpHeight = 2200
/** Drawn once for all lines, which pass over it. */
const Warp = memo(({ layout }: { layout: Layout }) => (
  <div className="sticky top-0 h-0" aria-hidden="true">
    <svg width={layout.width} height={warpHeight} className="absolute" style={{ left: namesWidth }}>
      <path d={warpStrokes(layout, warpHeight)} className="stroke-warp" strokeWidth="1.4" />
    </svg>
  </div>
))
Warp.displayName = 'Warp'

const LineOfWeave = memo(
  ({
    index,
    top,
    line: { band, row },
    layout,
    letters,
    open,
    isOpen,
    apart,
    label,
    labelId,
    column,
  }: {
    index: number
    top: number
    line: Line
    layout: Layout
    letters: string
    open: readonly OpenAt[] | null
    isOpen: boolean
    apart: string
    /** What stands where somebody looks; null: they look elsewhere. */
    label: string | null
    labelId: string
    column: number | null
  }) => {
    const height = row ? courseHeight : bandHeight
    return (
      <div
        role="row"
        aria-rowindex={index + 2}
        aria-level={row ? 2 : 1}
        aria-expanded={row ? undefined : isOpen}
        data-line={index}
        className={`absolute flex w-full items-center ${row ? '' : 'cursor-pointer'} ${label === null ? '' : 'outline-2 -outline-offset-2 outline-tide'}`}
        style={{ height, transform: `translateY(${top}px)`, contain: 'strict' }}
      >
        <span
          role="rowheader"
          className="sticky left-0 z-1 flex shrink-0 items-center gap-1.5 self-stretch bg-linen pr-3"
          style={{ width: namesWidth }}
        >
          {row ? (
            <>
              <a
                tabIndex={-1}
                href={`/courses/${row.id}`}
                className="min-w-0 flex-1 truncate pl-5 text-[13px] hover:underline"
                title={`${row.code} ${row.title}, ${apart}`}
              >
                {row.code} {row.title}
              </a>
              <span className="max-w-[3.5rem] shrink-0 truncate text-[12.5px] text-ink-3">
                {apart}
              </span>
              <span
                className={`w-7 shrink-0 text-right text-[13px] ${row.openMusts > 0 ? 'font-semibold text-rust' : 'text-ink-3'}`}
              >
                {row.openMusts > 0 ? row.openMusts : row.readiness === 'ready' ? '' : '?'}
              </span>
            </>
          ) : (
            <>
              <span aria-hidden="true">{isOpen ? '▾' : '▸'}</span>
              <span className="min-w-0 flex-1">
                <span className="block truncate font-semibold">{band.title}</span>
                <span className="block text-[12.5px] leading-tight text-ink-2">
                  {band.ready} of {band.rows.length} ready
                </span>
              </span>
            </>
          )}
        </span>
        <Drawing
          height={height}
          width={layout.width}
          strokes={
            open ? bandStrokes(layout, open, band.rows.length) : courseStrokes(layout, letters)
          }
          column={column === null ? null : (layout.columns[column]?.x ?? null)}
          step={layout.step}
          isBand={row === null}
        />
        {label !== null && (
          <span role="gridcell" id={labelId} aria-colindex={(column ?? 0) + 2} className="sr-only">
            {label}
          </span>
        )}
      </div>
    )
  },
)
LineOfWeave.displayName = 'LineOfWeave'

const Drawing = ({
  height,
  width,
  strokes,
  column,
  step,
  isBand,
}: {
  height: number
  width: number
  strokes: Strokes
  column: number | null
  step: number
  isBand: boolean
}) => (
  <svg
    width={width}
    height={height}
    aria-hidden="true"
    data-strands
    className="shrink-0"
    fill="none"
  >
    {column !== null && (
      <rect x={column - step / 2} width={step} height={height} className="fill-tide-soft" />
    )}
    <StrokesOf strokes={strokes} isBand={isBand} />
  </svg>
)
