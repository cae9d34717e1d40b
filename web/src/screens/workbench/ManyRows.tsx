import { useState } from 'react'
import type { Template, TemplateEdit } from '@wickerframe/core'
import { Button, Pick, plural } from '../../controls/controls.tsx'
import { columns, type Column } from './columns.ts'
import type { OutlineRow } from './outlineRows.ts'
import { editsOfCell } from './sheetCells.ts'

/** What can be set in several rows at once, in the order of the sheet. */
const settable: readonly Column['id'][] = [
  'strength',
  'audience',
  'due',
  'points',
  'category',
  'may',
]

/** One thing that is set in all rows that have it; what they all say already stands there. */
const ForAll = ({
  column,
  rows,
  template,
  onMake,
}: {
  column: Column
  rows: readonly OutlineRow[]
  template: Template
  onMake: (edits: TemplateEdit[]) => void
}) => {
  const able = rows.filter((row) => column.editable(row))
  const texts = new Set(able.map((row) => column.text(row, template)))
  const [only = ''] = texts
  const same = texts.size === 1 ? only : ''
  const [typed, setTyped] = useState<string | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  if (able.length === 0) return null
  const apply = (text: string) => {
    const [first] = able
    const reading = first && column.read?.(first, text, template)
    if (reading && !reading.ok) {
      setWrong(reading.message)
      return
    }
    setWrong(null)
    setTyped(null)
    onMake(able.flatMap((row) => editsOfCell(row, column, text, template)))
  }
  const label = `${column.title} of ${plural(able.length, 'row')}`
  if (column.choices)
    return (
      <Pick
        inline
        label={column.title}
        aria-label={label}
        value={same}
        onChange={(event) => {
          // Nothing is an answer for what may be without one only.
          if (event.target.value !== '' || column.id === 'category') apply(event.target.value)
        }}
        options={[
          { value: '', text: texts.size > 1 ? 'differ' : '–' },
          ...column.choices(template).map((choice) => ({ value: choice, text: choice })),
        ]}
      />
    )
  return (
    <span className="relative">
      <label className="flex items-center gap-1">
        <span className="text-ink-2">{column.title}</span>
        <input
          aria-label={label}
          aria-invalid={wrong !== null}
          className={`border bg-sheet px-1.5 py-0.5 ${column.id === 'points' ? 'w-16' : 'w-32'} ${wrong === null ? 'border-line-strong' : 'border-rust'}`}
          placeholder={texts.size > 1 ? 'differ' : ''}
          value={typed ?? same}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            event.stopPropagation()
            if (event.key === 'Enter') apply(typed ?? same)
            if (event.key === 'Escape') {
              setTyped(null)
              setWrong(null)
            }
          }}
          onBlur={() => typed !== null && typed !== same && apply(typed)}
        />
      </label>
      {wrong !== null && (
        <span
          role="alert"
          className="absolute bottom-full left-0 z-20 block w-max max-w-[26rem] border border-line-strong bg-sheet px-2 py-1 text-[12.5px]"
        >
          {wrong}
        </span>
      )}
    </span>
  )
}

/** What can be done with several rows that are chosen in the outline: each is one step to undo. */
export const ManyRows = ({
  rows,
  template,
  onMake,
  onRemove,
  onNone,
}: {
  rows: readonly OutlineRow[]
  template: Template
  onMake: (edits: TemplateEdit[]) => void
  onRemove: () => void
  onNone: () => void
}) => (
  <div
    role="group"
    aria-label="The rows that are chosen"
    className="flex flex-wrap items-center gap-x-4 gap-y-1 border-y border-line-strong bg-tide-soft px-2 py-1.5"
  >
    <span className="font-semibold">{rows.length} rows chosen</span>
    {columns
      .filter(({ id }) => settable.includes(id))
      .map((column) => (
        <ForAll
          // What was typed for other rows is not meant for these.
          key={`${column.id} ${rows.map(({ key }) => key).join(' ')}`}
          column={column}
          rows={rows}
          template={template}
          onMake={onMake}
        />
      ))}
    <Button className="py-0.5!" onClick={onRemove}>
      Remove
    </Button>
    <Button shape="word" onClick={onNone}>
      choose none
    </Button>
  </div>
)
