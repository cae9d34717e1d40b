import { useState } from 'react'
import { imageAmong, imageData, type Asset } from '@wickerframe/core'
import { Problem } from '../../controls/controls.tsx'
import { DropFiles } from '../../controls/DropFiles.tsx'
import { readImageFile, type ImageContent } from '../../controls/imageFile.ts'
import { usePut } from './usePut.ts'
import { WaitingLines } from './WaitingLines.tsx'

/** An image that waits to be described. */
interface Waiting {
  content: ImageContent
  words: string
}

/** What a file's name says of its picture, for a start: `week-3_tide chart.svg` says “week 3 tide chart”. */
export const wordsOfFileName = (fileName: string): string =>
  fileName
    .replace(/\.\w{1,5}$/, '')
    .replace(/[-_.\s]+/g, ' ')
    .trim()

/**
 * Several images put in at once: chosen or dropped, each asked what it shows, the licence asked once for all. What could not be
 * read is told by name; what could not be put in stays, with what was typed.
 */
export const NewImages = ({
  held,
  onSaved,
}: {
  /** The images that are there already. */
  held: readonly Asset[]
  /** Told the key of each that was put in. */
  onSaved: (key: string) => void
}) => {
  const [waiting, setWaiting] = useState<readonly Waiting[]>([])
  const [licence, setLicence] = useState('')
  const [wrong, setWrong] = useState<readonly string[]>([])
  const put = usePut(() => {})
  const take = async (files: readonly File[]) => {
    const read = await Promise.all(files.map((file) => readImageFile(file)))
    setWrong(read.filter((content) => typeof content === 'string'))
    const taken = read.flatMap((content): Waiting[] =>
      typeof content === 'string' ? [] : [{ content, words: wordsOfFileName(content.fileName) }],
    )
    setWaiting((before) => [...before, ...taken])
  }
  const isReady =
    waiting.length > 0 && licence.trim() !== '' && waiting.every(({ words }) => words.trim() !== '')
  const putAll = async () => {
    let there = held
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
          return
        }
      onSaved(asset.key)
      there = [...there, asset]
      setWaiting((before) => before.filter((other) => other !== image))
    }
  }
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (isReady) void putAll()
      }}
    >
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
        isReady={isReady && !put.isPending}
        onType={(i, words) =>
          setWaiting((before) => before.map((other, j) => (j === i ? { ...other, words } : other)))
        }
        onLeaveOut={(i) => setWaiting((before) => before.filter((_, j) => j !== i))}
        onLicence={setLicence}
      />
      <Problem error={put.error} />
    </form>
  )
}
