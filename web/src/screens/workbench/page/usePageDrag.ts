import {
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
} from '@dnd-kit/core'
import { useRef, useState, type RefObject } from 'react'

/** Before which block something is put when it is let go at a height: the number of blocks whose middle lies above it. */
export const dropBefore = (boxes: readonly { top: number; bottom: number }[], y: number): number =>
  boxes.filter(({ top, bottom }) => (top + bottom) / 2 < y).length

/** Blocks dragged by pointer. @param onDrop told which block is put at which place, counted without it */
export const usePageDrag = (
  list: RefObject<HTMLElement | null>,
  keys: readonly string[],
  onDrop: (key: string, at: number) => void,
) => {
  const from = useRef(0)
  const [dropping, setDropping] = useState<{ key: string; before: number } | null>(null)
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }))
  const over = ({ active, activatorEvent, delta }: DragMoveEvent | DragEndEvent) => {
    if (!list.current || !(activatorEvent instanceof MouseEvent)) return null
    const boxes = [...list.current.querySelectorAll(':scope > [data-block]')].map((element) =>
      element.getBoundingClientRect(),
    )
    // How far it was dragged counts what was scrolled meanwhile; the boxes are where they are now.
    const y = activatorEvent.clientY + delta.y - (window.scrollY - from.current)
    return { key: String(active.id), before: dropBefore(boxes, y) }
  }
  return {
    dropping,
    handlers: {
      sensors,
      onDragStart: () => {
        from.current = window.scrollY
      },
      onDragMove: (event: DragMoveEvent) => setDropping(over(event)),
      onDragEnd: (event: DragEndEvent) => {
        const drop = over(event)
        setDropping(null)
        if (!drop) return
        const own = keys.indexOf(drop.key)
        onDrop(drop.key, drop.before > own ? drop.before - 1 : drop.before)
      },
      onDragCancel: () => setDropping(null),
    },
  }
}
