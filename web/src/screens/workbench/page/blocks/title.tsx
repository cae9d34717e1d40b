import { useState } from 'react'
import { FormatField, FormatText } from '../../FormatField.tsx'
import type { BlockEditing } from './editing.tsx'

export const TitleEditor = ({ block: { text }, set }: BlockEditing<'title'>) => {
  const [open, setOpen] = useState(false)
  return open ? (
    <FormatField
      label="Title"
      value={text}
      onCancel={() => setOpen(false)}
      onDone={(now) => {
        setOpen(false)
        if (now !== text) set('text', text, now)
      }}
    />
  ) : (
    <button
      type="button"
      className="w-full border border-line px-2 py-1 text-left"
      onClick={() => setOpen(true)}
    >
      <FormatText format={text} />
    </button>
  )
}
