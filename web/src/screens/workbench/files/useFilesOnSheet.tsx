import { useRef, type DragEvent, type ReactNode, type RefObject } from 'react'
import { FileRemarks } from '../../../controls/DropFiles.tsx'
import { useHandouts } from '../../../controls/useHandouts.ts'
import { useDraftStore } from '../draftStore.ts'
import type { OutlineRow } from '../outlineRows.ts'
import { headHeight, rowHeight } from '../SheetRow.tsx'
import { partsOfFiles } from './fileEdits.ts'

/**
 * Files dropped on the outline: each becomes a part that hands it out, at the row it was dropped on.
 * @param onMade is told the keys of the parts that came of them
 */
export const useFilesOnSheet = (
  scroller: RefObject<HTMLDivElement | null>,
  rows: readonly OutlineRow[],
  onMade: (keys: readonly string[], row: OutlineRow | undefined) => void,
): {
  handlers: { onDragOver?: (event: DragEvent) => void; onDrop?: (event: DragEvent) => void }
  told: ReactNode
} => {
  const { edit, mayEdit } = useDraftStore()
  /** The row they were dropped on. */
  const target = useRef<OutlineRow | undefined>(undefined)
  const { take, sending, wrong, remarks } = useHandouts((kept) => {
    const { draft } = useDraftStore.getState()
    if (!draft) return
    const made = partsOfFiles(draft, kept, target.current)
    if (edit(...made.edits)) onMade(made.keys, target.current)
  })
  const rowAt = ({ clientY }: DragEvent): OutlineRow | undefined => {
    const box = scroller.current?.getBoundingClientRect()
    if (!box) return undefined
    const y = clientY - box.top - headHeight + (scroller.current?.scrollTop ?? 0)
    return rows[Math.max(0, Math.min(rows.length - 1, Math.floor(y / rowHeight)))]
  }
  const carriesFiles = (event: DragEvent) => event.dataTransfer.types.includes('Files')
  return {
    handlers: mayEdit
      ? {
          onDragOver: (event) => carriesFiles(event) && event.preventDefault(),
          onDrop: (event) => {
            if (!carriesFiles(event)) return
            event.preventDefault()
            target.current = rowAt(event)
            void take([...event.dataTransfer.files])
          },
        }
      : {},
    told: (
      <>
        {sending !== null && (
          <p role="status" className="my-1 border-l-4 border-slate bg-band px-3 py-1">
            {sending} is being brought in …
          </p>
        )}
        <FileRemarks wrong={wrong} remarks={remarks} />
      </>
    ),
  }
}
