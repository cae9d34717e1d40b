import { useDraggable } from '@dnd-kit/core'
import { memo, type ReactNode } from 'react'
import { isModule, type Template } from '@wickerframe/core'
import type { CellReading, Column } from './columns.ts'
import type { OutlineRow } from './outlineRows.ts'
import { CellEditor, CellText } from './SheetCell.tsx'

/** Height of a row in pixels; every row has the same, so that none need be measured. */
export const rowHeight = 31
/** Height of the row of headings, which stands above all others and stays in sight, in pixels. */
export const headHeight = 29

/** Where a row that is dragged would come to lie. */
export interface Dragging {
  key: string
  target: string
  where: 'before' | 'after' | 'inside'
}

/** The part of a row by which it is dragged. */
const Handle = ({
  row,
  disabled,
  shown,
  children,
}: {
  row: OutlineRow
  disabled: boolean
  /** Whether it can be seen, and dragged by a finger: elsewhere a finger scrolls. */
  shown: boolean
  children: ReactNode
}) => {
  const { setNodeRef, listeners } = useDraggable({ id: row.key, disabled })
  return (
    <span
      ref={setNodeRef}
      {...listeners}
      className={`block truncate ${disabled ? '' : 'cursor-grab'} ${shown && !disabled ? 'touch-none' : ''}`}
    >
      {shown && !disabled && (
        <span aria-hidden="true" className="mr-1 text-tide" title="Drag it, or Alt with the arrows">
          ↕
        </span>
      )}
      {children}
    </span>
  )
}

interface RowProps {
  row: OutlineRow
  index: number
  columns: readonly Column[]
  template: Template
  grid: string
  top: number
  active: number | null
  selected: boolean
  open: boolean
  closed: boolean
  mayMove: boolean
  drop: Dragging['where'] | null
  remarks: string | undefined
  /** What can be done with it, where one stands in it. */
  menu: ReactNode
  editing: { column: number; start: string; isMarked: boolean } | null
  onPick: (index: number, column: number, event: { shiftKey: boolean; ctrlKey: boolean }) => void
  onEdit: (index: number, column: number) => void
  onToggle: (key: string) => void
  onDone: (reading: CellReading & { ok: true }, then: 'down' | 'right' | 'left' | 'stay') => void
  onCancel: () => void
}

/** Rows are made anew with every edit; one that shows the same is not drawn again. */
const sameRow = (a: OutlineRow, b: OutlineRow): boolean =>
  a.key === b.key &&
  a.part === b.part &&
  a.depth === b.depth &&
  a.index === b.index &&
  a.siblings === b.siblings &&
  a.parent === b.parent &&
  a.opens === b.opens &&
  a.above === b.above &&
  a.rendered === b.rendered &&
  a.occurrences === b.occurrences &&
  a.row === b.row &&
  (a.row !== 'element' || (b.row === 'element' && a.block === b.block)) &&
  (a.row !== 'exception' || (b.row === 'exception' && a.exception === b.exception))
/** A row that is not edited needs the template for nothing but the home page's own fields. */
const sameProps = (a: RowProps, b: RowProps): boolean =>
  sameRow(a.row, b.row) &&
  (a.row.row !== 'home' || a.template.home === b.template.home) &&
  a.editing === b.editing &&
  (a.editing === null || (a.template === b.template && a.onDone === b.onDone)) &&
  a.index === b.index &&
  a.columns === b.columns &&
  a.top === b.top &&
  a.active === b.active &&
  a.selected === b.selected &&
  a.open === b.open &&
  a.closed === b.closed &&
  a.mayMove === b.mayMove &&
  a.drop === b.drop &&
  a.remarks === b.remarks &&
  a.menu === b.menu &&
  a.onPick === b.onPick &&
  a.onEdit === b.onEdit

/** One row of the outline sheet, its active cell, and the editor in it. */
export const SheetRow = memo(
  ({
    row,
    index,
    columns,
    template,
    grid,
    top,
    active,
    selected,
    open,
    closed,
    mayMove,
    drop,
    remarks,
    menu,
    editing,
    onPick,
    onEdit,
    onToggle,
    onDone,
    onCancel,
  }: RowProps) => (
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-level={row.depth + 1}
      aria-selected={selected}
      aria-expanded={row.opens ? !closed : undefined}
      data-row={row.key}
      className={`absolute left-0 right-0 grid border-b ${open ? 'border-y border-tide bg-sheet' : selected ? 'border-line bg-tide-soft' : row.row === 'part' && isModule(row.part) ? 'border-line bg-band' : 'border-line'} ${drop === 'before' ? 'border-t-2 border-t-tide' : drop === 'after' ? 'border-b-2 border-b-tide' : drop === 'inside' ? 'outline-2 -outline-offset-2 outline-tide' : ''}`}
      style={{ top, height: rowHeight, gridTemplateColumns: grid }}
    >
      {columns.map((column, at) => {
        const text = column.text(row, template)
        const here = active === at
        return (
          <div
            key={column.id}
            role="gridcell"
            aria-colindex={at + 1}
            id={`cell-${index}-${at}`}
            tabIndex={here ? 0 : -1}
            data-cell={`${index}-${at}`}
            title={column.id === 'rendered' ? row.rendered : text}
            aria-readonly={column.read === null || !column.editable(row)}
            aria-label={
              text === '' && column.id !== 'name' && column.id !== 'rendered'
                ? `${column.title}: nothing`
                : undefined
            }
            className={`flex min-w-0 items-center px-1.5 ${here ? 'outline-2 -outline-offset-2 outline-tide' : ''}`}
            style={column.id === 'name' ? { paddingLeft: 6 + row.depth * 16 } : undefined}
            onMouseDown={(event) => {
              if (editing) return
              onPick(index, at, event)
            }}
            onDoubleClick={() => onEdit(index, at)}
          >
            {editing?.column === at ? (
              <CellEditor
                column={column}
                row={row}
                template={template}
                start={editing.start}
                isMarked={editing.isMarked}
                onDone={onDone}
                onCancel={onCancel}
              />
            ) : column.id === 'kind' ? (
              <Handle
                row={row}
                shown={active !== null}
                disabled={!mayMove || row.row === 'home' || row.row === 'exception' || row.above}
              >
                <CellText column={column} row={row} text={text} />
              </Handle>
            ) : column.id === 'name' ? (
              <>
                <span
                  className={`flex min-w-0 items-center gap-1 ${row.row === 'part' && isModule(row.part) ? 'font-semibold' : ''}`}
                >
                  {row.opens ? (
                    <button
                      type="button"
                      tabIndex={-1}
                      aria-label={closed ? `Open ${row.rendered}` : `Close ${row.rendered}`}
                      className="w-4 shrink-0 text-ink-3"
                      onMouseDown={(event) => event.stopPropagation()}
                      onClick={() => onToggle(row.key)}
                    >
                      {closed ? '▸' : '▾'}
                    </button>
                  ) : (
                    <span className="w-4 shrink-0" />
                  )}
                  <span className="truncate">
                    <CellText column={column} row={row} text={text} />
                  </span>
                  {row.above && (
                    <span className="shrink-0 text-[11.5px] text-ink-3">from above</span>
                  )}
                  {remarks && (
                    <span
                      className="mr-1.5 shrink-0 border-b border-dotted border-rust text-[11.5px] text-rust"
                      title={remarks}
                    >
                      remark
                    </span>
                  )}
                </span>
                {menu}
              </>
            ) : (
              <span className="truncate">
                <CellText column={column} row={row} text={text} />
              </span>
            )}
          </div>
        )
      })}
    </div>
  ),
  sameProps,
)
SheetRow.displayName = 'SheetRow'
