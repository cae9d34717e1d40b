import { useEffect, useRef, useState, type KeyboardEvent } from 'react'
import { homePageKey, strengths } from '@wickerframe/core'
import { useDraftStore } from './draftStore.ts'
import { FormatField, FormatText } from './FormatField.tsx'
import type { OutlineRow } from './outlineRows.ts'

const strengthLine: Record<string, string> = { must: 'h-[3px] bg-ink', should: 'h-px bg-ink', may: 'h-px border-t border-dotted border-ink' }

/** The template as a sheet: one row for each part, edited in the row by keyboard. */
export const OutlineSheet = ({ rows, chosen, onChoose }: { rows: readonly OutlineRow[]; chosen: string | null; onChoose: (key: string) => void }) => {
  const { edit, mayEdit, undo, redo } = useDraftStore()
  const [editing, setEditing] = useState<string | null>(null)
  const body = useRef<HTMLTableSectionElement>(null)
  const at = Math.max(0, rows.findIndex((row) => row.key === chosen))

  useEffect(() => {
    if (editing === null && body.current?.contains(document.activeElement)) body.current.querySelector<HTMLElement>(`[data-row="${chosen}"]`)?.focus()
  }, [chosen, editing])

  const move = (row: OutlineRow, by: number) => {
    const to = row.index + by
    if (row.index < 0 || to < 0 || to >= row.siblings) return
    if (row.block !== null) edit({ edit: 'move-block', part: homePageKey, block: row.block, at: to })
    else edit({ edit: 'move-part', part: row.key, parent: row.parent, at: to })
  }
  const setStrength = (row: OutlineRow, value: string | undefined) => {
    if (row.block !== null) edit({ edit: 'set-block', part: homePageKey, block: row.block, field: 'strength', was: row.strength, value })
    else edit({ edit: 'set-field', part: row.key, field: ['strength'], was: row.strength, value })
  }
  const nextStrength = (row: OutlineRow) => setStrength(row, strengths[(strengths.indexOf(row.strength as (typeof strengths)[number]) + 1) % strengths.length])
  const remove = (row: OutlineRow) => {
    if (row.index < 0) return
    if (row.block !== null) edit({ edit: 'remove-block', part: homePageKey, block: row.block })
    else edit({ edit: 'remove-part', part: row.key })
  }
  const rename = (row: OutlineRow) => {
    if (mayEdit && row.block === null) setEditing(row.key)
  }
  const onKey = (event: KeyboardEvent) => {
    const row = rows[at]
    if (!row || editing !== null) return
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
      event.preventDefault()
      if (event.shiftKey) redo()
      else undo()
      return
    }
    const go = (index: number) => {
      const to = rows[Math.min(rows.length - 1, Math.max(0, index))]
      if (to) onChoose(to.key)
    }
    const does: Record<string, (() => void) | undefined> = {
      ArrowDown: () => (event.altKey ? mayEdit && move(row, 1) : go(at + 1)),
      ArrowUp: () => (event.altKey ? mayEdit && move(row, -1) : go(at - 1)),
      Home: () => go(0),
      End: () => go(rows.length - 1),
      Enter: () => rename(row),
      s: () => mayEdit && nextStrength(row),
      Delete: () => mayEdit && remove(row),
    }
    const act = does[event.key]
    if (!act || event.target instanceof HTMLSelectElement || event.target instanceof HTMLInputElement) return
    event.preventDefault()
    act()
  }
  return (
    <table className="w-full table-fixed border-collapse text-left" aria-label="Outline of the template">
      <thead>
        <tr className="border-b border-line-strong text-[12.5px]">
          <th scope="col" className="w-[42%] py-1 pl-2">Named</th>
          <th scope="col" className="w-[30%]">In this course</th>
          <th scope="col" className="w-[6.5rem]">Strength</th>
          <th scope="col">Repeats, place</th>
        </tr>
      </thead>
      <tbody ref={body} onKeyDown={onKey}>
        {rows.map((row) => (
          <tr
            key={row.key} data-row={row.key} tabIndex={row.key === (chosen ?? rows[0]?.key) ? 0 : -1} aria-selected={row.key === chosen} onClick={() => onChoose(row.key)} onDoubleClick={() => rename(row)}
            className={`h-[31px] border-b ${row.key === chosen ? 'border-y-tide border-y bg-sheet' : 'border-line'} ${row.kind === 'module' ? 'bg-band' : ''}`}
          >
            <td className="pr-2" style={{ paddingLeft: 8 + row.depth * 18 }}>
              {editing === row.key ? (
                <FormatField label={`Naming format of ${row.key}`} value={row.format} onCancel={() => setEditing(null)} onDone={(format) => {
                  setEditing(null)
                  if (format !== row.format) edit({ edit: 'set-field', part: row.key, field: ['name'], was: row.format, value: format })
                }} />
              ) : (
                <span className={`flex items-baseline gap-2 ${row.kind === 'module' ? 'font-semibold' : ''}`}>
                  <span className="w-[4.7rem] shrink-0 text-[11.5px] text-ink-3">{row.key === 'home-page' ? 'home' : row.kind === 'web-link' ? 'link' : row.kind}</span>
                  <span className="truncate" title={row.format}>{row.format ? <FormatText format={row.format} /> : <span className="text-ink-2">{row.rendered}</span>}</span>
                </span>
              )}
            </td>
            <td className="truncate pr-2 text-ink-2" title={row.rendered}>{row.block === null ? row.rendered || 'not in this course' : ''}{row.turns > 1 && <span className="text-ink-3"> ×{row.turns}</span>}</td>
            <td>
              <span className="flex items-center gap-2">
                <span aria-hidden="true" className={`w-4 ${strengthLine[row.strength] ?? ''}`} />
                <select aria-label={`Strength of ${row.format || row.rendered}`} disabled={!mayEdit} tabIndex={-1} value={row.strength} className="bg-transparent font-mono text-[12px]" onChange={(event) => setStrength(row, event.target.value)}>
                  {strengths.map((one) => <option key={one}>{one}</option>)}
                </select>
              </span>
            </td>
            <td className="truncate text-ink-2" title={row.repeats}>{row.audience === 'students' ? row.repeats : [row.audience, row.repeats].filter(Boolean).join('; ')}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
