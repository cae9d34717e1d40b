import { useState } from 'react'
import { freshKey, type HouseText } from '@wickerframe/core'
import type { LibraryKind, LibraryPut } from '@wickerframe/contract'
import { Button, Field, Pick, Problem } from '../../controls/controls.tsx'
import { usePut } from './usePut.ts'

/** Puts something new into the library. */
export const NewEntry = ({
  kind,
  taken,
  today,
  onSaved,
}: {
  kind: Exclude<LibraryKind, 'image' | 'file' | 'image-set'>
  taken: ReadonlySet<string>
  today: string
  /** Told the key of what was put in. */
  onSaved: (key: string) => void
}) => {
  const [title, setTitle] = useState('')
  const [form, setForm] = useState<HouseText['form']>('text')
  const key = freshKey(title || 'entry', taken)
  const put = usePut(() => {
    setTitle('')
    onSaved(key)
  })
  if (kind === 'block')
    return (
      <p className="text-ink-2">
        Blocks come here from a template: keep one there with “keep for other places”, then put it
        into the library under Shared pieces.
      </p>
    )
  const make = (): LibraryPut => {
    if (kind === 'house-text')
      return {
        kind,
        was: null,
        document: {
          key,
          title,
          form,
          revisions: [{ number: 1, inForceFrom: today, html: '<p>What it says.</p>' }],
        },
      }
    return {
      kind: 'rubric',
      was: null,
      document: {
        key,
        title,
        criteria: [
          {
            text: 'First criterion',
            levels: [
              { text: 'Met', points: 10 },
              { text: 'Not met', points: 0 },
            ],
          },
        ],
      },
    }
  }
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (title.trim() !== '') put.mutate(make())
      }}
    >
      <Field label="Title" value={title} onChange={(event) => setTitle(event.target.value)} />
      {kind === 'house-text' && (
        <Pick
          label="It is"
          value={form}
          onChange={(event) => setForm(event.target.value as HouseText['form'])}
          options={[
            { value: 'text', text: 'a passage' },
            { value: 'file', text: 'a file' },
            { value: 'page', text: 'a page' },
          ]}
        />
      )}
      <Button type="submit" disabled={title.trim() === '' || put.isPending}>
        Put it in
      </Button>
      <Problem error={put.error} />
    </form>
  )
}
