import { useState } from 'react'
import type { Asset } from '@wickerframe/core'
import type { LibraryEntry } from '@wickerframe/contract'
import { Button, Field, Problem } from '../../controls/controls.tsx'
import { usePut } from './usePut.ts'

/** Says otherwise what an image shows, and how it may be used. */
export const ImageEditor = ({ entry, onSaved }: { entry: LibraryEntry; onSaved: () => void }) => {
  const image = entry.document as Asset
  const [alternativeText, setAlternativeText] = useState(image.alternativeText)
  const [licence, setLicence] = useState(image.licence)
  const put = usePut(onSaved)
  return (
    <div className="mt-2 grid gap-2 border border-line bg-paper p-3">
      <Field
        label="What it shows (alternative text)"
        value={alternativeText}
        onChange={(event) => setAlternativeText(event.target.value)}
      />
      <Field label="Licence" value={licence} onChange={(event) => setLicence(event.target.value)} />
      <Problem error={put.error} />
      <Button
        className="justify-self-start"
        disabled={put.isPending || alternativeText.trim() === '' || licence.trim() === ''}
        onClick={() =>
          put.mutate({
            kind: 'image',
            was: entry.revision,
            document: { ...image, alternativeText, licence },
          })
        }
      >
        Save
      </Button>
    </div>
  )
}
