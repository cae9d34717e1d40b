import type { Editor } from '@tiptap/react'
import { useState } from 'react'
import { Button } from '../../../controls/controls.tsx'
import { Tick } from '../../../controls/typed.tsx'
import type { PageSources } from './pageSources.ts'

/** Puts in an image of the template, with what it shows in words. */
export const ImageForm = ({
  editor,
  sources,
  onClose,
}: {
  editor: Editor
  sources: PageSources
  onClose: () => void
}) => {
  const [key, setKey] = useState(sources.assets[0]?.key ?? '')
  const asset = sources.assets.find((asset) => asset.key === key)
  const [alt, setAlt] = useState(asset?.alternativeText ?? '')
  const [decoration, setDecoration] = useState(false)
  if (!asset)
    return (
      <p className="border border-line bg-band p-2">
        The template has no image yet. Put one in from the library, on the shared pieces.
      </p>
    )
  return (
    <div className="flex flex-wrap items-end gap-3 border border-line bg-band p-2">
      <label className="flex flex-col text-ink-2">
        Image
        <select
          className="border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          value={key}
          onChange={(event) => {
            setKey(event.target.value)
            setAlt(
              sources.assets.find((asset) => asset.key === event.target.value)?.alternativeText ??
                '',
            )
          }}
        >
          {sources.assets.map((asset) => (
            <option key={asset.key} value={asset.key}>
              {asset.fileName}
            </option>
          ))}
        </select>
      </label>
      <label className="flex grow flex-col text-ink-2">
        What it shows (alternative text)
        <input
          className="border border-line-strong bg-sheet px-1 py-0.5 text-ink"
          value={alt}
          disabled={decoration}
          onChange={(event) => setAlt(event.target.value)}
        />
      </label>
      <Tick label="decoration only" checked={decoration} onChange={setDecoration} />
      <Button
        disabled={!decoration && alt.trim() === ''}
        onClick={() => {
          editor
            .chain()
            .focus()
            .insertContent({
              type: 'image',
              attrs: { src: `asset:${asset.fileName}`, alt: decoration ? '' : alt.trim() },
            })
            .run()
          onClose()
        }}
      >
        Put image in
      </Button>
      <Button shape="word" onClick={onClose}>
        never mind
      </Button>
    </div>
  )
}
