import { useVirtualizer } from '@tanstack/react-virtual'
import {
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
  type CSSProperties,
  type KeyboardEvent,
} from 'react'
import { useNavigate } from 'react-router'
import type { ConformanceRow } from '@wickerframe/contract'
import { linesOf, openAt, type Band, type Line } from './bands.ts'
import { columnAt, shownLetters, type Layout } from './layout.ts'
import { LineName } from './LineName.tsx'
import { LineStrands } from './LineStrands.tsx'
import { bandHeight, courseHeight } from './strokes.ts'
import { Warp } from './Warp.tsx'
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

/** So many pixels are on a sheet beside one another. */
const sheet = 680
/** On paper nothing can be scrolled to: what is wider is drawn smaller. */
const onPaper = (layout: Layout): CSSProperties =>
  ({ '--on-paper': Math.min(1, sheet / (namesWidth + layout.width)).toFixed(3) }) as CSSProperties

/** Scrolls sideways, where a column is behind the names or beyond the edge. */
const bringIntoSight = (grid: HTMLElement | null, layout: Layout, column: number): void => {
  const x = layout.columns[column]?.x
  if (!grid || x === undefined) return
  const room = grid.clientWidth - namesWidth
  const [left, right] = [x - layout.step, x + layout.step]
  if (left < grid.scrollLeft) grid.scrollLeft = column === 0 ? 0 : left
  else if (right > grid.scrollLeft + room) grid.scrollLeft = right - room
}

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
    bringIntoSight(scroll.current, layout, to.column)
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
    const drawing = target.closest('svg[data-line]')
    return drawing ? columnAt(layout, clientX - drawing.getBoundingClientRect().left) : null
  }
  const pointed = (target: EventTarget, clientX: number) => {
    if (!(target instanceof Element)) return null
    const index = target.closest<HTMLElement>('[data-line]')?.dataset['line']
    const line = index === undefined ? undefined : lines[Number(index)]
    return line ? { index: Number(index), line, column: columnOf(target, clientX) } : null
  }
  const labelOf = ({ band, row }: Line): string =>
    row
      ? crossingWords(row, layout, letters.get(row.id) ?? '', at.column)
      : bandWords(band, layout, opens.of.get(band.key) ?? [], at.column)
  const shown = virtual.getVirtualItems().flatMap((item) => {
    const line = lines[item.index]
    return line ? [{ item, line, isAt: isWalked && item.index === at.line }] : []
  })
  return (
    <div
      ref={scroll}
      role="treegrid"
      aria-label="Courses by what their templates ask"
      aria-rowcount={lines.length + 1}
      aria-colcount={layout.columns.length + 1}
      aria-activedescendant={isWalked ? `${id}-at` : undefined}
      tabIndex={0}
      className="weave max-h-[68vh] overflow-auto"
      style={onPaper(layout)}
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
        <Warp layout={layout} left={namesWidth} />
        {/* Names and strands are a surface each: a surface for each name, to keep it in its place, would be too much to draw. */}
        <div className="relative" style={{ height: virtual.getTotalSize() }} role="presentation">
          <div
            role="rowgroup"
            className="sticky left-0 z-1 h-full bg-linen"
            style={{ width: namesWidth }}
          >
            {shown.map(({ item, line, isAt }) => (
              <LineName
                key={item.key}
                index={item.index}
                top={item.start}
                line={line}
                isOpen={open.has(line.band.key)}
                apart={line.row ? (apart.get(line.row.platformId) ?? '') : ''}
                label={isAt ? labelOf(line) : null}
                labelId={`${id}-at`}
                column={at.column}
              />
            ))}
          </div>
          <div className="absolute top-0" style={{ left: namesWidth }} aria-hidden="true">
            {shown.map(({ item, line, isAt }) => (
              <LineStrands
                key={item.key}
                index={item.index}
                top={item.start}
                layout={layout}
                letters={line.row ? (letters.get(line.row.id) ?? '') : ''}
                open={line.row ? null : (opens.of.get(line.band.key) ?? null)}
                courses={line.band.rows.length}
                column={isAt ? at.column : null}
              />
            ))}
          </div>
          {shown.map(({ item, isAt }) =>
            isAt ? (
              <div
                key={item.key}
                role="presentation"
                className="pointer-events-none absolute z-1 w-full outline-2 -outline-offset-2 outline-tide"
                style={{ top: item.start, height: item.size }}
              />
            ) : null,
          )}
        </div>
      </div>
    </div>
  )
}
