import { DndContext } from '@dnd-kit/core'
import { useVirtualizer } from '@tanstack/react-virtual'
import {
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
} from 'react'
import { flushSync } from 'react-dom'
import { isModule, partsWithin, type Template, type TemplateEdit } from '@wickerframe/core'
import { plural } from '../../controls/controls.tsx'
import { columns, type CellReading, type Column } from './columns.ts'
import { ManyRows } from './ManyRows.tsx'
import { useDraftStore } from './draftStore.ts'
import type { OutlineRow } from './outlineRows.ts'
import { cellsAsText, editsOfCell, fillCellsDown, pasteCells } from './sheetCells.ts'
import { headHeight, rowHeight, SheetRow } from './SheetRow.tsx'
import {
  addRow,
  clipRows,
  dropOn,
  moveBy,
  moveIn,
  moveOut,
  pasteRows,
  removeRows,
} from './sheetEdits.ts'
import type { Listing } from './ListOfParts.tsx'
import { RowMenu } from './RowMenu.tsx'
import { actOfKey, type Key, type SheetAct } from './sheetKeys.ts'
import type { Press } from '../../shell/findOrDo/keys.ts'
import { useFilesOnSheet } from './files/useFilesOnSheet.tsx'
import { useSaid } from './useSaid.tsx'
import { useSheetDrag } from './useSheetDrag.ts'

/** A cell by the key of its row: rows come and go, also by others. */
interface Cell {
  key: string | null
  /** Where it stood when it was gone to: what stands there is taken where its row is gone. */
  row: number
  column: number
}
/** A row that was just added, while its name is typed. */
interface Fresh {
  key: string
  /** The name it came with. */
  given: string
  /** Whether it came by Enter after another; it goes again where it is not named. */
  follows: boolean
}
/** A cell that is typed into, whatever is gone to meanwhile. */
interface Editing {
  key: string
  column: number
  start: string
  isMarked: boolean
}

/** What was removed, by its name, and how much with it. */
const removedWords = (removed: readonly OutlineRow[]): string => {
  const [first, ...others] = removed
  if (!first) return ''
  const name = first.part?.name ?? first.rendered
  const held = first.part && isModule(first.part) ? partsWithin([first.part]).length - 1 : 0
  const within = held > 0 && others.length === 0 ? ` with ${plural(held, 'part')} in it` : ''
  return `Removed “${name}”${others.length > 0 ? ` and ${plural(others.length, 'other row')}` : within}.`
}

const grid = columns.map((column) => column.width).join(' ')

/** The template as a sheet: one row for each part, edited in the row by keyboard like a good table. */
export const OutlineSheet = ({
  rows,
  all,
  template,
  chosen,
  slipOpen,
  closed,
  remarks,
  onChoose,
  onToggle,
  onList,
}: {
  /** Those that are shown. */
  rows: readonly OutlineRow[]
  all: readonly OutlineRow[]
  template: Template
  chosen: string | null
  slipOpen: boolean
  closed: ReadonlySet<string>
  /** What proofreading says of a part, by its key. */
  remarks: ReadonlyMap<string, string>
  onChoose: (key: string | null) => void
  onToggle: (key: string) => void
  /** A list was pasted upon a row. @param goTo takes the keyboard to a row that came of it */
  onList: (listing: Listing, row: OutlineRow, goTo: (key: string) => void) => void
}) => {
  const { edit, mayEdit, undo, redo } = useDraftStore()
  const [cell, setCell] = useState<Cell>(() => {
    const row = Math.max(
      0,
      rows.findIndex((row) => row.key === chosen),
    )
    return { key: rows[row]?.key ?? null, row, column: 1 }
  })
  /** Key of the row at which choosing several began. */
  const [anchor, setAnchor] = useState<string | null>(null)
  const [extra, setExtra] = useState<ReadonlySet<string>>(new Set())
  const [editing, setEditing] = useState<Editing | null>(null)
  const [wanted, setWanted] = useState<{ key: string; column?: number; thenEdit: boolean } | null>(
    null,
  )
  /** Enter in it makes the next, Tab goes deeper. */
  const [fresh, setFresh] = useState<Fresh | null>(null)
  const scroller = useRef<HTMLDivElement>(null)
  const focusSoon = useRef(false)
  const { said, say } = useSaid(() => {
    focusSoon.current = true
  })
  const typing = useRef(false)
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 12,
    scrollMargin: headHeight,
    scrollPaddingStart: headHeight,
  })
  const stands = rows.findIndex(({ key }) => key === cell.key)
  const at = stands >= 0 ? stands : Math.min(cell.row, rows.length - 1)
  const column = Math.min(cell.column, columns.length - 1)
  const row = rows[at]

  const go = useCallback(
    (to: Omit<Cell, 'key'>) => {
      const row = Math.max(0, Math.min(rows.length - 1, to.row))
      const column = Math.max(0, Math.min(columns.length - 1, to.column))
      setCell({ key: rows[row]?.key ?? null, row, column })
      virtual.scrollToIndex(row)
      focusSoon.current = true
    },
    [rows, virtual],
  )
  // A new row is gone to as soon as it is there.
  if (wanted) {
    const there = rows.findIndex((row) => row.key === wanted.key)
    if (there >= 0) {
      setWanted(null)
      setCell({ key: wanted.key, row: there, column: wanted.column ?? 1 })
      setAnchor(null)
      setExtra(new Set())
      focusSoon.current = true
      if (wanted.thenEdit)
        setEditing({
          key: wanted.key,
          column: 1,
          start: columns[1]?.text(rows[there] as OutlineRow, template) ?? '',
          isMarked: true,
        })
    }
  }
  useLayoutEffect(() => {
    typing.current = editing !== null
  }, [editing])
  useLayoutEffect(() => {
    if (!focusSoon.current || editing) return
    focusSoon.current = false
    virtual.scrollToIndex(at)
    const cellThere = () =>
      scroller.current?.querySelector<HTMLElement>(`[data-cell="${at}-${column}"]`)
    const now = cellThere()
    if (now) {
      now.focus({ preventScroll: true })
      // Beside a slip, the sheet may be wider than there is room.
      now.scrollIntoView({ block: 'nearest', inline: 'nearest' })
    }
    // A row that was out of sight stands there a frame later, unless somebody types by then.
    else
      requestAnimationFrame(() => {
        if (!typing.current) cellThere()?.focus({ preventScroll: true })
      })
  })

  // What is opened from elsewhere is brought into sight, and when the sheet opens.
  useEffect(() => {
    const there = current.current.rows.findIndex(({ key }) => key === chosen)
    if (there >= 0) virtual.scrollToIndex(there)
  }, [virtual, chosen])

  const selection = useMemo(() => {
    const keys = new Set(extra)
    const from = rows.findIndex(({ key }) => key === anchor)
    if (from >= 0)
      for (const row of rows.slice(Math.min(from, at), Math.max(from, at) + 1)) keys.add(row.key)
    return keys
  }, [extra, anchor, at, rows])
  const selectedRows =
    selection.size > 0 ? rows.filter((row) => selection.has(row.key)) : row ? [row] : []

  const mayType = (typed: OutlineRow | undefined, which: Column | undefined): boolean =>
    mayEdit &&
    typed !== undefined &&
    which !== undefined &&
    which.read !== null &&
    which.editable(typed)
  const startEdit = (start: string | undefined, columnAt: number) => {
    const which = columns[columnAt]
    // At once, so that the next key already goes into the field.
    if (mayType(row, which) && row && which)
      flushSync(() =>
        setEditing({
          key: row.key,
          column: columnAt,
          start: start ?? which.text(row, template),
          isMarked: false,
        }),
      )
  }
  const make = (edits: Parameters<typeof edit>) => edits.length > 0 && edit(...edits)
  // Rows keep the same handlers from edit to edit; what is current then is looked up when they are used.
  const current = useRef({ rows, all, at, template, fresh })
  useLayoutEffect(() => {
    current.current = { rows, all, at, template, fresh }
  })
  /** Nothing was typed: the list is at its end, and the row that waited for a name goes; what was gone to stays so. */
  const endList = useCallback(
    (waiting: string) => {
      const { rows: shown, at: now, template: of } = current.current
      const index = shown.findIndex(({ key }) => key === waiting)
      const goneTo = shown[now === index ? index - 1 : now]
      setFresh(null)
      edit(...removeRows(shown.slice(index, index + 1), of))
      if (goneTo) setWanted({ key: goneTo.key, thenEdit: false })
    },
    [edit],
  )
  /** Whether the row that waits for a name has none, and went. */
  const isUnnamed = useCallback((): boolean => {
    const { rows: shown, fresh: waiting } = current.current
    const standing = shown.find(({ key }) => key === waiting?.key)
    if (!waiting?.follows || standing?.part?.name !== waiting.given) return false
    endList(waiting.key)
    return true
  }, [endList])
  /** What a key does that ends the name of a row just added; false: what it does everywhere. */
  const onFresh = useCallback(
    (named: TemplateEdit[], then: 'down' | 'right' | 'left'): boolean => {
      const now = current.current
      const typed = now.rows[now.at]
      if (!typed || typed.key !== now.fresh?.key || typed.row !== 'part') return false
      if (then !== 'down') {
        const moves = (then === 'right' ? moveIn : moveOut)(typed, now.all, now.template)
        if (moves.length === 0 || !edit(...named, ...moves)) return false
        setWanted({ key: typed.key, thenEdit: true })
        return true
      }
      if (named.length === 0 && typed.part.name === now.fresh.given) {
        endList(typed.key)
        return true
      }
      if (named.length > 0 && !edit(...named)) return false
      const { draft } = useDraftStore.getState()
      const next = draft && addRow(typed.part.kind, typed, draft, 'beside')
      if (!next || !edit(...next.edits)) return false
      setFresh({ ...next, follows: true })
      setWanted({ key: next.key, thenEdit: true })
      return true
    },
    [edit, endList],
  )
  const onDone = useCallback(
    (reading: CellReading & { ok: true }, then: 'down' | 'right' | 'left' | 'stay') => {
      setEditing(null)
      const real = reading.edits.filter(
        (edit) =>
          !('was' in edit) ||
          JSON.stringify(edit.was ?? null) !== JSON.stringify(edit.value ?? null),
      )
      if (then !== 'stay' && onFresh(real, then)) return
      if (then === 'stay' && real.length === 0 && isUnnamed()) return
      setFresh(null)
      if (real.length > 0) edit(...real)
      if (then === 'stay') return
      go({
        row: at + (then === 'down' ? 1 : 0),
        column: column + (then === 'right' ? 1 : then === 'left' ? -1 : 0),
      })
    },
    [edit, go, at, column, onFresh, isUnnamed],
  )
  const onCancel = useCallback(() => {
    setEditing(null)
    if (isUnnamed()) return
    setFresh(null)
    focusSoon.current = true
  }, [isUnnamed])
  const onPick = useCallback(
    (index: number, which: number, event: { shiftKey: boolean; ctrlKey: boolean }) => {
      const key = current.current.rows[index]?.key
      if (key === undefined) return
      // What is typed elsewhere is taken there first; rows may come and go by that.
      if (typing.current && document.activeElement instanceof HTMLInputElement) {
        document.activeElement.blur()
        setWanted({ key, column: which, thenEdit: false })
        return
      }
      if (event.shiftKey)
        setAnchor((before) => before ?? current.current.rows[current.current.at]?.key ?? null)
      else {
        setAnchor(null)
        setExtra((before) => {
          if (!event.ctrlKey) return before.size > 0 ? new Set() : before
          const next = new Set(before)
          if (!next.delete(key)) next.add(key)
          return next
        })
      }
      setCell({ key, row: index, column: which })
      focusSoon.current = true
      if (slipOpen && !event.shiftKey && !event.ctrlKey) onChoose(key)
    },
    [slipOpen, onChoose],
  )
  const onEdit = useCallback(
    (index: number, which: number) => {
      const edited = current.current.rows[index]
      const that = columns[which]
      if (edited && that && mayEdit && that.read !== null && that.editable(edited)) {
        setCell({ key: edited.key, row: index, column: which })
        setEditing({
          key: edited.key,
          column: which,
          start: that.text(edited, current.current.template),
          isMarked: false,
        })
      } else if (edited) onChoose(edited.key)
    },
    [mayEdit, onChoose],
  )
  const remove = () => {
    const edits = removeRows(
      selectedRows.filter((row) => !row.above),
      template,
    )
    if (make(edits)) {
      say(removedWords(selectedRows.filter((row) => !row.above)))
      setAnchor(null)
      setExtra(new Set())
      focusSoon.current = true
    }
  }
  const add = (kind: 'page' | 'module') => {
    const made = addRow(
      kind === 'module'
        ? 'module'
        : row?.row === 'part' && !isModule(row.part)
          ? row.part.kind
          : 'page',
      row,
      template,
    )
    if (row && closed.has(row.key)) onToggle(row.key)
    if (make(made.edits)) {
      setFresh({ ...made, follows: false })
      setWanted({ key: made.key, thenEdit: true })
    }
  }
  const moveRow = (edits: Parameters<typeof edit>) => {
    if (row && make(edits)) setWanted({ key: row.key, thenEdit: false })
  }
  const step = (by: number, extend: boolean) => {
    if (extend) setAnchor((before) => before ?? row?.key ?? null)
    else {
      setAnchor(null)
      if (extra.size > 0) setExtra(new Set())
    }
    go({ row: at + by, column })
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))]
    if (slipOpen && next && !extend) onChoose(next.key)
  }
  const moves = {
    up: (moved: OutlineRow) => moveBy(moved, -1),
    down: (moved: OutlineRow) => moveBy(moved, 1),
    in: (moved: OutlineRow) => moveIn(moved, all, template),
    out: (moved: OutlineRow) => moveOut(moved, all, template),
  }
  const perform = (does: SheetAct, here: OutlineRow, which: number): void => {
    switch (does.act) {
      case 'undo':
      case 'redo':
        // The row that has the keyboard may go with it.
        focusSoon.current = true
        return does.act === 'undo' ? undo() : redo()
      case 'fill-down':
        return void make(fillCellsDown(selectedRows, columns[which], template))
      case 'choose-all':
        return setExtra(new Set(rows.map(({ key }) => key)))
      case 'choose-none':
        setAnchor(null)
        return setExtra(new Set())
      case 'remove':
        return remove()
      case 'add':
        return add(does.kind)
      case 'move':
        return moveRow(moves[does.way](here))
      case 'step':
        return step(does.by, does.extend)
      case 'go':
        return go({ row: does.row === 'first' ? 0 : rows.length - 1, column: which })
      case 'column':
        return go({ row: at, column: which + does.by })
      case 'toggle':
        return onToggle(here.key)
      case 'type':
        return startEdit(does.start, which)
      case 'open-slip':
        return onChoose(here.key)
      case 'empty-cell':
        return void make(editsOfCell(here, columns[which], '', template))
    }
  }
  /** @returns whether the key does something here */
  const press = (pressed: Key, which: number): boolean => {
    const does =
      row &&
      actOfKey(pressed, {
        row,
        column: columns[which],
        columnAt: which,
        columnCount: columns.length,
        isClosed: closed.has(row.key),
        mayEdit,
        mayType: mayType(row, columns[which]),
        severalChosen: selection.size > 1,
      })
    if (!does) return false
    perform(does, row, which)
    return true
  }
  const onKey = (event: KeyboardEvent) => {
    if (!editing && press(event, column)) event.preventDefault()
  }
  const onMenu = ({ key, ctrl, alt, shift }: Press) => {
    const name = columns.findIndex(({ id }) => id === 'name')
    go({ row: at, column: name })
    focusSoon.current = true
    press({ key, ctrlKey: !!ctrl, metaKey: false, altKey: !!alt, shiftKey: !!shift }, name)
  }
  const onCopy = (event: ClipboardEvent) => {
    if (editing || !row) return
    const clip = clipRows(selectedRows, template)
    event.preventDefault()
    event.clipboardData.setData('text/plain', cellsAsText(selectedRows, columns, template))
    if (clip) event.clipboardData.setData('application/x-wickerframe-parts', clip)
  }
  const onPaste = (event: ClipboardEvent) => {
    if (editing || !mayEdit || !row) return
    event.preventDefault()
    const pasted = pasteRows(
      event.clipboardData.getData('application/x-wickerframe-parts') ||
        event.clipboardData.getData('text/plain'),
      row,
      template,
    )
    if (pasted) {
      const [first] = pasted.keys
      if (make(pasted.edits) && first) setWanted({ key: first, thenEdit: false })
      return
    }
    const text = event.clipboardData.getData('text/plain')
    const intoCells = () => make(pasteCells(text, rows, columns, { row: at, column }, template))
    // What is pasted upon names may be meant for new rows; whoever pastes sees both.
    if (columns[column]?.id === 'name' && text.trim().includes('\n'))
      onList({ text, html: event.clipboardData.getData('text/html'), intoCells }, row, (key) =>
        setWanted({ key, thenEdit: false }),
      )
    else intoCells()
  }

  const { dragging, handlers } = useSheetDrag(scroller, rows, (drop) => {
    const dragged = all.find(({ key }) => key === drop.key)
    const target = all.find(({ key }) => key === drop.target)
    if (dragged && target && make(dropOn(dragged, target, drop.where, template)))
      setWanted({ key: dragged.key, thenEdit: false })
  })

  const filesDropped = useFilesOnSheet(scroller, rows, (keys, row) => {
    if (row && closed.has(row.key)) onToggle(row.key)
    const [first] = keys
    say(`${plural(keys.length, 'file')} became ${keys.length === 1 ? 'a part' : 'parts'}.`)
    if (first) setWanted({ key: first, thenEdit: false })
  })

  const severalChosen = mayEdit && selectedRows.length > 1
  return (
    <DndContext {...handlers}>
      {filesDropped.told}
      <div
        role="treegrid"
        aria-label="Outline of the template"
        aria-rowcount={rows.length + 1}
        aria-colcount={columns.length}
        aria-multiselectable="true"
        aria-readonly={!mayEdit}
        data-read-only={mayEdit ? undefined : ''}
        onKeyDown={onKey}
        onCopy={onCopy}
        onCut={(event) => {
          onCopy(event)
          if (mayEdit && !editing) remove()
        }}
        onPaste={onPaste}
        className="text-left"
      >
        <div
          ref={scroller}
          role="presentation"
          {...filesDropped.handlers}
          className={`overflow-auto ${severalChosen ? 'h-[max(20rem,calc(100vh-21rem))]' : 'h-[max(20rem,calc(100vh-17rem))]'}`}
        >
          <div role="rowgroup" className="sticky top-0 z-10 min-w-[80rem] bg-linen">
            <div
              role="row"
              aria-rowindex={1}
              className="grid border-b border-line-strong text-[12.5px] font-semibold"
              style={{ gridTemplateColumns: grid, height: headHeight }}
            >
              {columns.map((column) => (
                <div
                  key={column.id}
                  role="columnheader"
                  className={`truncate px-1.5 py-1 ${column.id === 'name' ? 'pl-6' : ''}`}
                >
                  {column.title}
                </div>
              ))}
            </div>
          </div>
          <div
            role="rowgroup"
            className="relative min-w-[80rem]"
            style={{ height: virtual.getTotalSize() }}
          >
            {virtual.getVirtualItems().map((item) => {
              const drawn = rows[item.index]
              if (!drawn) return null
              const here = item.index === at
              return (
                <SheetRow
                  key={drawn.key}
                  row={drawn}
                  index={item.index}
                  columns={columns}
                  template={template}
                  grid={grid}
                  top={item.start - headHeight}
                  active={here ? column : null}
                  selected={selection.has(drawn.key)}
                  open={drawn.key === chosen}
                  closed={closed.has(drawn.key)}
                  mayMove={mayEdit}
                  drop={
                    dragging?.target === drawn.key && dragging.key !== drawn.key
                      ? dragging.where
                      : null
                  }
                  remarks={remarks.get(drawn.key)}
                  menu={here && !editing ? <RowMenu mayEdit={mayEdit} onPress={onMenu} /> : null}
                  editing={editing?.key === drawn.key ? editing : null}
                  onPick={onPick}
                  onEdit={onEdit}
                  onToggle={onToggle}
                  onDone={onDone}
                  onCancel={onCancel}
                />
              )
            })}
          </div>
        </div>
      </div>
      {severalChosen && (
        <ManyRows
          rows={selectedRows}
          template={template}
          onMake={make}
          onRemove={remove}
          onNone={() => {
            setAnchor(null)
            setExtra(new Set())
            focusSoon.current = true
          }}
        />
      )}
      {said}
      {rows.length === 0 && (
        <p className="p-4 text-ink-2">No row is found. Clear the filter above.</p>
      )}
    </DndContext>
  )
}
