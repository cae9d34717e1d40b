import {
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
} from '@dnd-kit/core'
import { useState, type RefObject } from 'react'
import { isModule } from '@wickerframe/core'
import type { OutlineRow } from './outlineRows.ts'
import { headHeight, rowHeight, type Dragging } from './SheetRow.tsx'

/** Where in a row of the sheet something is dropped: a row that holds others takes it inside in its middle. */
export const dropWhere = (target: OutlineRow, share: number): Dragging['where'] => {
  const holds = (target.row === 'part' && isModule(target.part)) || target.row === 'exception'
  if (holds && share > 0.3 && share < 0.75) return 'inside'
  return share < 0.5 ? 'before' : 'after'
}

/** Rows dragged by pointer: what is dragged over what, and what to do when it is let go. */
export const useSheetDrag = (
  scroller: RefObject<HTMLDivElement | null>,
  rows: readonly OutlineRow[],
  onDrop: (drop: Dragging) => void,
) => {
  const [dragging, setDragging] = useState<Dragging | null>(null)
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }))
  const over = (event: DragMoveEvent | DragEndEvent): Dragging | null => {
    const box = scroller.current?.getBoundingClientRect()
    const pointer = event.activatorEvent
    if (!box || !(pointer instanceof MouseEvent)) return null
    const within = pointer.clientY + event.delta.y - box.top - headHeight
    const y = within + (scroller.current?.scrollTop ?? 0)
    const index = Math.floor(y / rowHeight)
    const target = rows[Math.max(0, Math.min(rows.length - 1, index))]
    return (
      (target && {
        key: String(event.active.id),
        target: target.key,
        where: dropWhere(target, y / rowHeight - index),
      }) ??
      null
    )
  }
  return {
    dragging,
    handlers: {
      sensors,
      onDragMove: (event: DragMoveEvent) => setDragging(over(event)),
      onDragEnd: (event: DragEndEvent) => {
        const drop = over(event)
        setDragging(null)
        if (drop) onDrop(drop)
      },
      onDragCancel: () => setDragging(null),
    },
  }
}
