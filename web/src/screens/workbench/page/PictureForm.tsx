import { useId, useState } from 'react'
import { imageAmong, imageData, type Asset } from '@wickerframe/core'
import { Button, Field } from '../../../controls/controls.tsx'
import { readImageFile, type ImageContent } from '../../../controls/imageFile.ts'
import { Tick } from '../../../controls/typed.tsx'
import { imagesBySet, nothingOffered, type Offered } from './fromLibrary.ts'
import type { PageSources } from './pageSources.ts'

/** A picture for a page, and what it shows in words; empty for decoration. */
export interface DescribedPicture {
  asset: Asset
  alternativeText: string
}
/** A picture that came from outside: nobody said yet whose it is. */
export interface NewPicture {
  content: ImageContent
  alternativeText: string
}

const dataOf = (picture: Asset | NewPicture): string =>
  imageData(
    'content' in picture
      ? { key: 'new', alternativeText: '', licence: '', ...picture.content }
      : picture,
  )

const PictureChoice = ({
  assets,
  library: { assets: offered, sets },
  chosen,
  onChoose,
}: {
  assets: readonly Asset[]
  library: Offered
  chosen: Asset | null
  onChoose: (asset: Asset) => void
}) => {
  const name = useId()
  const group = (title: string, pictures: readonly Asset[]) =>
    pictures.length > 0 && (
      <fieldset key={title} className="min-w-0">
        <legend className="text-ink-2">{title}</legend>
        <div className="flex max-h-44 flex-wrap gap-2 overflow-y-auto p-0.5">
          {pictures.map((asset) => (
            <label
              key={asset.key}
              title={asset.fileName}
              className={`w-28 border p-1 text-[12px] has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-tide ${chosen?.key === asset.key ? 'border-ink bg-sheet' : 'border-line'}`}
            >
              <input
                type="radio"
                name={name}
                className="sr-only"
                checked={chosen?.key === asset.key}
                onChange={() => onChoose(asset)}
              />
              <img src={imageData(asset)} alt="" className="h-14 w-full object-cover" />
              <span className="line-clamp-2">{asset.alternativeText}</span>
            </label>
          ))}
        </div>
      </fieldset>
    )
  return (
    <>
      {group('Pictures of this template', assets)}
      {imagesBySet(offered, sets).map(({ title, images }) =>
        group(title === undefined ? 'From the library' : `From the library: ${title}`, images),
      )}
    </>
  )
}

/**
 * Asks which picture, and what it shows: one of the template's, of the library's, or a file. A picture that came already is only
 * asked about.
 */
export const PictureForm = ({
  sources,
  came = null,
  more = 0,
  onPut,
  onClose,
}: {
  sources: PageSources
  came?: NewPicture | null
  /** How many others wait after it. */
  more?: number
  onPut: (picture: DescribedPicture) => void
  onClose: () => void
}) => {
  const [picture, setPicture] = useState<Asset | NewPicture | null>(
    came ?? sources.assets[0] ?? null,
  )
  const [words, setWords] = useState(picture?.alternativeText ?? '')
  const [licence, setLicence] = useState('our own')
  const [isDecoration, setDecoration] = useState(false)
  const [wrong, setWrong] = useState<string | null>(null)
  const choose = (next: Asset | NewPicture) => {
    setPicture(next)
    setWords(next.alternativeText)
    setWrong(null)
  }
  const read = async (file: File) => {
    const content = await readImageFile(file)
    if (typeof content === 'string') setWrong(content)
    else choose({ content, alternativeText: '' })
  }
  const isNew = picture !== null && 'content' in picture
  const ready =
    picture !== null && (isDecoration || words.trim() !== '') && (!isNew || licence.trim() !== '')
  const put = () => {
    if (!ready || picture === null) return
    const asset = imageAmong(
      'content' in picture
        ? {
            ...picture.content,
            alternativeText: words.trim() || 'decoration',
            licence: licence.trim(),
          }
        : picture,
      sources.assets,
    )
    if (!sources.assets.includes(asset)) sources.onAsset?.(asset)
    onPut({ asset, alternativeText: isDecoration ? '' : words.trim() })
  }
  return (
    <form
      className="grid gap-2 border border-line bg-band p-2"
      onSubmit={(event) => {
        event.preventDefault()
        put()
      }}
      onKeyDown={(event) => {
        event.stopPropagation()
        if (event.key === 'Escape') onClose()
      }}
    >
      {came === null && (
        <>
          <PictureChoice
            assets={sources.assets}
            library={sources.library ?? nothingOffered}
            chosen={isNew ? null : picture}
            onChoose={choose}
          />
          {sources.onAsset && (
            <label className="text-ink-2">
              or a file of yours, which may also be dropped on the page{' '}
              <input
                type="file"
                accept="image/svg+xml,image/png,image/jpeg,image/webp"
                onChange={(event) => {
                  const [file] = event.target.files ?? []
                  if (file) void read(file)
                }}
              />
            </label>
          )}
        </>
      )}
      {wrong && (
        <p role="alert" className="text-rust">
          {wrong}
        </p>
      )}
      {picture === null ? (
        <p>The template has no picture yet.</p>
      ) : (
        <div className="flex flex-wrap items-end gap-3">
          {isNew && (
            <img
              src={dataOf(picture)}
              alt="The picture that is asked about"
              className="h-16 border border-line"
            />
          )}
          <Field
            autoFocus
            label={
              more > 0
                ? `What does this picture show? (${more} more after it)`
                : 'What does the picture show? (alternative text)'
            }
            className="grow"
            value={words}
            disabled={isDecoration}
            maxLength={500}
            onChange={(event) => setWords(event.target.value)}
          />
          <Tick label="decoration only" checked={isDecoration} onChange={setDecoration} />
          {isNew && (
            <Field
              label="Whose it is, and how it may be used"
              value={licence}
              maxLength={300}
              onChange={(event) => setLicence(event.target.value)}
            />
          )}
        </div>
      )}
      <span className="flex items-center gap-4">
        <Button type="submit" disabled={!ready}>
          Put picture in
        </Button>
        <Button shape="word" onClick={onClose}>
          {came === null ? 'never mind' : 'leave it out'}
        </Button>
      </span>
    </form>
  )
}
