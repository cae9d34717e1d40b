import { memo } from 'react'
import type { OpenAt } from './bands.ts'
import type { Layout } from './layout.ts'
import { bandHeight, bandStrokes, courseHeight, courseStrokes } from './strokes.ts'
import { StrokesOf } from './StrokesOf.tsx'

/** The strands of one line: one drawing, which a screen reader passes over. */
export const LineStrands = memo(
  ({
    index,
    top,
    layout,
    letters,
    open,
    courses,
    column,
  }: {
    index: number
    top: number
    layout: Layout
    /** Of a course, one for each column. */
    letters: string
    /** Of a band, at each column; null: it is a course. */
    open: readonly OpenAt[] | null
    courses: number
    /** Where somebody looks; null: elsewhere. */
    column: number | null
  }) => {
    const height = open ? bandHeight : courseHeight
    const x = column === null ? undefined : layout.columns[column]?.x
    return (
      <svg
        data-line={index}
        width={layout.width}
        height={height}
        className={`absolute overflow-visible ${open ? 'cursor-pointer' : ''}`}
        style={{ top }}
        fill="none"
      >
        {x !== undefined && (
          <rect
            x={x - layout.step / 2}
            width={layout.step}
            height={height}
            className="fill-tide-soft"
          />
        )}
        <StrokesOf
          strokes={open ? bandStrokes(layout, open, courses) : courseStrokes(layout, letters)}
          isBand={open !== null}
        />
      </svg>
    )
  },
)
LineStrands.displayName = 'LineStrands'
