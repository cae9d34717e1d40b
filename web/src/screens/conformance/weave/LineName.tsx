import { memo } from 'react'
import type { Line } from './bands.ts'
import { bandHeight, courseHeight } from './strokes.ts'

/** What a line of the weave is called, and how its courses stand: the row that a screen reader reads. */
export const LineName = memo(
  ({
    index,
    top,
    line: { band, row },
    isOpen,
    apart,
    label,
    labelId,
    column,
  }: {
    index: number
    top: number
    line: Line
    isOpen: boolean
    apart: string
    /** What stands where somebody looks; null: they look elsewhere. */
    label: string | null
    labelId: string
    column: number
  }) => (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-level={row ? 2 : 1}
      aria-expanded={row ? undefined : isOpen}
      data-line={index}
      className={`absolute flex w-full items-center ${row ? '' : 'cursor-pointer'}`}
      style={{ top, height: row ? courseHeight : bandHeight, contain: 'layout size style' }}
    >
      <span role="rowheader" className="flex w-full items-center gap-1.5 pr-3">
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
      {label !== null && (
        <span role="gridcell" id={labelId} aria-colindex={column + 2} className="sr-only">
          {label}
        </span>
      )}
    </div>
  ),
)
LineName.displayName = 'LineName'
