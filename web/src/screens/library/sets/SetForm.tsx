import { useId, useState } from 'react'
import { freshKey, ImageSet } from '@wickerframe/core'
import { Button, Field, Problem } from '../../../controls/controls.tsx'
import { usePut } from '../usePut.ts'
import type { HeldSet } from './setsOf.ts'

/** Makes a set of images, or says otherwise what it is called and how large its images are. */
export const SetForm = ({
  of,
  taken,
  onSaved,
  onClose,
}: {
  /** null: a new one. */
  of: HeldSet | null
  /** Keys that other sets have. */
  taken: ReadonlySet<string>
  /** Told its key. */
  onSaved: (key: string) => void
  onClose: () => void
}) => {
  const [title, setTitle] = useState(of?.set.title ?? '')
  const { width = 1200, height = 240 } = of?.set.size ?? {}
  const [size, setSize] = useState({ width: String(width), height: String(height) })
  const about = useId()
  const read = ImageSet.safeParse({
    key: of?.set.key ?? freshKey(title, taken),
    title: title.trim(),
    size: { width: Number(size.width), height: Number(size.height) },
    images: of?.set.images ?? [],
  })
  const put = usePut(() => read.success && onSaved(read.data.key))
  return (
    <form
      className="mt-2 flex flex-wrap items-end gap-3 border border-line bg-paper p-3"
      aria-label={of ? `Set ${of.set.title}` : 'New set'}
      onSubmit={(event) => {
        event.preventDefault()
        if (read.success)
          put.mutate({ kind: 'image-set', was: of?.revision ?? null, document: read.data })
      }}
    >
      <Field
        autoFocus
        label="What the images are"
        placeholder="Banners"
        maxLength={200}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
      />
      {(['width', 'height'] as const).map((side) => (
        <Field
          key={side}
          label={side === 'width' ? 'Width' : 'Height'}
          type="number"
          min={16}
          max={4000}
          className="w-24"
          aria-describedby={about}
          value={size[side]}
          onChange={(event) => setSize({ ...size, [side]: event.target.value })}
        />
      ))}
      <Button type="submit" disabled={!read.success || put.isPending}>
        {of ? 'Save the set' : 'Make the set'}
      </Button>
      <Button shape="word" onClick={onClose}>
        never mind
      </Button>
      <p id={about} className="w-full text-[13px] text-ink-2">
        In pixels, 16 to 4000. Photographs that are put in are cut to it around their middle;
        drawings are held to the proportion.
      </p>
      <Problem error={put.error} />
    </form>
  )
}
