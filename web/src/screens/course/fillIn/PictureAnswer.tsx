import { useState } from 'react'
import { imageData } from '@wickerframe/core'
import { Button, Field } from '../../../controls/controls.tsx'
import { DropFiles } from '../../../controls/DropFiles.tsx'
import { readImageFile } from '../../../controls/imageFile.ts'
import type { Typed } from './keptAnswers.ts'

type Picture = Extract<Typed, { as: 'picture' }>

/** A picture for an answer, and what it shows; one that is too large is drawn smaller. */
export const PictureAnswer = ({
  label,
  picture,
  onType,
}: {
  label: string
  picture: Picture | null
  onType: (picture: Picture | null) => void
}) => {
  const [wrong, setWrong] = useState<readonly string[]>([])
  const take = async ([file]: readonly File[]) => {
    if (!file) return
    const content = await readImageFile(file)
    setWrong(typeof content === 'string' ? [content] : [])
    if (typeof content !== 'string') onType({ as: 'picture', content, words: '' })
  }
  return (
    <div role="group" aria-label={label}>
      <p className="font-semibold">{label}</p>
      {picture ? (
        <div className="flex flex-wrap items-end gap-3">
          <img
            src={imageData({ key: 'own', alternativeText: '', licence: '', ...picture.content })}
            alt=""
            className="h-20 border border-line bg-sheet object-contain"
          />
          <Field
            label="What it shows, for whoever does not see it"
            className="min-w-64 grow"
            maxLength={500}
            value={picture.words}
            onChange={(event) => onType({ ...picture, words: event.target.value })}
          />
          <Button shape="word" onClick={() => onType(null)}>
            take another
          </Button>
        </div>
      ) : (
        <DropFiles
          words="Drop a picture here, or choose one:"
          label={`Picture for “${label}”`}
          accept="image/svg+xml,image/png,image/jpeg,image/webp"
          wrong={wrong}
          onFiles={(files) => void take(files)}
        />
      )}
    </div>
  )
}
