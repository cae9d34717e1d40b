import { useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import { createPortal } from 'react-dom'
import type { Template } from '@wickerframe/core'
import type { CellReading, Column } from './columns.ts'
import { FormatText } from './FormatField.tsx'
import type { OutlineRow } from './outlineRows.ts'
import { asksHow, WrittenLike } from './WrittenLike.tsx'

const strengthLine: Record<string, string> = {
  must: 'h-[3px] bg-ink',
  should: 'h-px bg-ink',
  may: 'h-px border-t border-dotted border-ink',
}

/** What stands in a cell. */
export const CellText = ({
  column,
  row,
  text,
}: {
  column: Column
  row: OutlineRow
  text: string
}) => {
  switch (column.id) {
    case 'strength':
      return (
        <span className="flex items-center gap-2">
          <span aria-hidden="true" className={`w-4 shrink-0 ${strengthLine[text] ?? ''}`} />
          <span className="font-mono text-[12px]">{text}</span>
        </span>
      )
    case 'name':
      if (row.row === 'element' && row.block.kind !== 'title')
        return <span>{text || row.rendered}</span>
      return text !== '' ? (
        <FormatText format={text} />
      ) : (
        <span className="text-ink-2">
          {row.row === 'exception' ? 'named as the others' : row.rendered}
        </span>
      )
    case 'rendered':
      return (
        <span className="text-ink-2">
          {row.row === 'part' && text === ''
            ? 'not in this course'
            : row.row === 'element' || row.row === 'exception'
              ? ''
              : text}
          {row.occurrences > 1 && <span className="text-ink-3"> ×{row.occurrences}</span>}
        </span>
      )
    case 'kind':
      return <span className="text-[12px] text-ink-3">{text}</span>
    case 'audience':
      return <span className={text === 'students' ? 'text-ink-3' : ''}>{text}</span>
    default:
      return <span className="text-ink-2">{text}</span>
  }
}

/** What is told of a cell, under it or above it, wherever there is room; the sheet scrolls within, and would cut it off. */
const Beside = ({ children }: { children: ReactNode }) => {
  const at = useRef<HTMLSpanElement>(null)
  const told = useRef<HTMLSpanElement>(null)
  useLayoutEffect(() => {
    const cell = at.current?.parentElement?.getBoundingClientRect()
    const box = told.current
    if (!cell || !box) return
    const { width, height } = box.getBoundingClientRect()
    const above = cell.bottom + height > window.innerHeight && cell.top > height
    box.style.top = `${above ? cell.top - height : cell.bottom}px`
    box.style.left = `${Math.max(0, Math.min(cell.left, window.innerWidth - width - edge))}px`
  })
  return (
    <span ref={at}>
      {createPortal(
        <span
          ref={told}
          role="alert"
          className="fixed z-20 block w-max max-w-[min(38rem,95vw)] border border-line-strong bg-sheet px-2 py-1 text-[12.5px]"
        >
          {children}
        </span>,
        document.body,
      )}
    </span>
  )
}
/** Kept free at the side of the window, in pixels. */
const edge = 16

/** A cell being edited: what it comes to is read on every key; what is wrong is told beside it, and kept as typed. */
export const CellEditor = ({
  column,
  row,
  template,
  start,
  isMarked,
  onDone,
  onCancel,
}: {
  column: Column
  row: OutlineRow
  template: Template
  start: string
  /** Whether what stands there is marked, so that what is typed takes its place. */
  isMarked: boolean
  onDone: (reading: CellReading & { ok: true }, then: 'down' | 'right' | 'left' | 'stay') => void
  onCancel: () => void
}) => {
  const [typed, setTyped] = useState(start)
  const input = useRef<HTMLInputElement>(null)
  const reading = column.read?.(row, typed, template) ?? null
  const told = reading === null ? null : reading.ok ? (reading.warning ?? null) : reading.message
  const isHelp = column.id === 'due' && asksHow(typed)
  const list = `choices-${column.id}`
  useLayoutEffect(() => {
    input.current?.focus()
    const end = input.current?.value.length ?? 0
    input.current?.setSelectionRange(isMarked ? 0 : end, end)
  }, [isMarked])
  const finish = (then: 'down' | 'right' | 'left' | 'stay') => {
    if (reading?.ok) onDone(reading, then)
  }
  return (
    <span className="relative block w-full">
      <input
        ref={input}
        aria-label={`${column.title} of ${row.rendered || row.key}`}
        aria-invalid={reading !== null && !reading.ok}
        value={typed}
        spellCheck={false}
        list={column.choices ? list : undefined}
        className={`w-full border bg-sheet px-1 py-px outline-none ${column.id === 'name' ? 'font-mono text-[12.5px]' : ''} ${reading && !reading.ok ? 'border-rust' : 'border-tide'}`}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          event.stopPropagation()
          if (event.key === 'Enter') finish('down')
          else if (event.key === 'Tab') {
            event.preventDefault()
            finish(event.shiftKey ? 'left' : 'right')
          } else if (event.key === 'Escape') onCancel()
        }}
        onBlur={() => (reading?.ok ? onDone(reading, 'stay') : onCancel())}
      />
      {column.choices && (
        <datalist id={list}>
          {column.choices(template).map((choice) => (
            <option
              key={choice}
              value={column.id === 'category' ? choice : choice.replace('-', ' ')}
            />
          ))}
        </datalist>
      )}
      {told && (
        <Beside>
          {isHelp ? <WrittenLike /> : told}
          {column.id === 'due' && !isHelp && reading?.ok === false && (
            <span className="text-ink-3"> ? shows how dates are written.</span>
          )}
        </Beside>
      )}
    </span>
  )
}
