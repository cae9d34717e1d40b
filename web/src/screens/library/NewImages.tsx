import { useState } from 'react'
import { imageAmong, imageData, sizeMisfit, type Asset } from '@wickerframe/core'
import { Pick, Problem } from '../../controls/controls.tsx'
import { DropFiles } from '../../controls/DropFiles.tsx'
import { readImageFile, type ImageContent } from '../../controls/imageFile.ts'
import { misfitInWords, sidesInWords, type HeldSet } from './sets/setsOf.ts'
import { usePut } from './usePut.ts'
import { WaitingLines } from './WaitingLines.tsx'

/** An image that waits to be described. */
interface Waiting {
  file: File
  content: ImageContent
  words: string
}

/** What a file's name says of its picture, for a start: `week-3_tide chart.svg` says “week 3 tide chart”. */
export const wordsOfFileName = (fileName: string): string =>
  fileName
    .replace(/\.\w{1,5}$/, '')
    .replace(/[-_.\s]+/g, ' ')
    .trim()

/** What is wrong with the size of an image for a set; null: nothing. */
const remarkOn = (content: ImageContent, set: HeldSet['set']): string | null => {
  const misfit = sizeMisfit(content, set.size)
  return misfit && misfitInWords(misfit, set)
}

/**
 * Several images put in at once: chosen or dropped, each asked what it shows, the licence asked once for all. What could not be
 * read is told by name; what could not be put in stays, with what was typed.
 */
export const NewImages = ({
  held,
  sets,
  into: shown,
  onSaved,
}: {
  /** The images that are there already. */
  held: readonly Asset[]
  sets: readonly HeldSet[]
  /** Key of the set that is shown, which they are put into unless somebody says otherwise. */
  into: string | null
  /** Told the key of each that was put in. */
  onSaved: (key: string) => void
}) => {
  const [waiting, setWaiting] = useState<readonly Waiting[]>([])
  const [licence, setLicence] = useState('')
  const [wrong, setWrong] = useState<readonly string[]>([])
  const [chosen, setChosen] = useState<string | null>(null)
  const into = sets.find(({ set }) => set.key === (chosen ?? shown)) ?? null
  const put = usePut(() => {})
  const putSet = usePut(() => {})
  const read = async (files: readonly File[], of: HeldSet | null) => {
    const contents = await Promise.all(files.map((file) => readImageFile(file, of?.set.size)))
    return files.map((file, i) => ({ file, content: contents[i] ?? '' }))
  }
  const take = async (files: readonly File[]) => {
    const taken = await read(files, into)
    setWrong(taken.flatMap(({ content }) => (typeof content === 'string' ? [content] : [])))
    setWaiting((before) => [
      ...before,
      ...taken.flatMap(({ file, content }): Waiting[] =>
        typeof content === 'string'
          ? []
          : [{ file, content, words: wordsOfFileName(content.fileName) }],
      ),
    ])
  }
  /** What waits is cut anew for another set, from the files as they were chosen. */
  const choose = async (key: string) => {
    setChosen(key)
    const of = sets.find(({ set }) => set.key === key) ?? null
    const anew = await read(
      waiting.map(({ file }) => file),
      of,
    )
    const contents = new Map(anew.map(({ file, content }) => [file, content]))
    setWaiting((before) =>
      before.map((image) => {
        const content = contents.get(image.file)
        return content && typeof content !== 'string' ? { ...image, content } : image
      }),
    )
  }
  const isReady =
    waiting.length > 0 && licence.trim() !== '' && waiting.every(({ words }) => words.trim() !== '')
  /** Puts in one after another, up to one that is refused. @returns the keys of those that are in the library now */
  const putImages = async (): Promise<string[]> => {
    let there = held
    const keys: string[] = []
    for (const image of waiting) {
      const asset = imageAmong(
        { ...image.content, alternativeText: image.words.trim(), licence: licence.trim() },
        there,
      )
      if (there.includes(asset))
        setWrong((before) => [
          ...before,
          `${image.content.fileName} is in the library already, as “${asset.alternativeText}”.`,
        ])
      else
        try {
          await put.mutateAsync({ kind: 'image', was: null, document: asset })
        } catch {
          // It says itself what is wrong; this one and those after it wait.
          return keys
        }
      onSaved(asset.key)
      keys.push(asset.key)
      there = [...there, asset]
      setWaiting((before) => before.filter((other) => other !== image))
    }
    return keys
  }
  const putAll = async () => {
    const keys = await putImages()
    if (!into) return
    const { set, revision } = into
    const fresh = keys.filter((key) => !set.images.includes(key))
    if (fresh.length > 0)
      putSet.mutate({
        kind: 'image-set',
        was: revision,
        document: { ...set, images: [...set.images, ...fresh] },
      })
  }
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (isReady) void putAll()
      }}
    >
      {sets.length > 0 && (
        <div className="mt-1 flex flex-wrap items-baseline gap-x-3">
          <Pick
            inline
            label="Put them into"
            value={into?.set.key ?? ''}
            onChange={(event) => void choose(event.target.value)}
            options={[
              { value: '', text: 'no set' },
              ...sets.map(({ set }) => ({
                value: set.key,
                text: `${set.title}, ${sidesInWords(set.size)}`,
              })),
            ]}
          />
          {into && (
            <span className="text-[13px] text-ink-2">
              Photographs are cut to it around their middle.
            </span>
          )}
        </div>
      )}
      <DropFiles
        several
        words="Drop image files here, or choose some:"
        label="Image files"
        accept="image/svg+xml,image/png,image/jpeg,image/webp"
        wrong={wrong}
        onFiles={(files) => void take(files)}
      />
      <WaitingLines
        lines={waiting.map(({ content, words }, i) => ({
          key: String(i),
          label: `What ${content.fileName} shows`,
          value: words,
          remark: into && remarkOn(content, into.set),
          picture: (
            <img
              src={imageData({ key: 'new', alternativeText: '', licence: '', ...content })}
              alt=""
              className="h-14 w-28 border border-line bg-sheet object-contain"
            />
          ),
        }))}
        licence={licence}
        licenceOfOne="Licence"
        isReady={isReady && !put.isPending && !putSet.isPending}
        onType={(i, words) =>
          setWaiting((before) => before.map((other, j) => (j === i ? { ...other, words } : other)))
        }
        onLeaveOut={(i) => setWaiting((before) => before.filter((_, j) => j !== i))}
        onLicence={setLicence}
      />
      <Problem error={put.error ?? putSet.error} />
    </form>
  )
}
