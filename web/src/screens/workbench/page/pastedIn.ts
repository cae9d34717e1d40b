import { readPasted, readPastedText, type PastedPicture } from '@wickerframe/core'
import { plural } from '../../../controls/controls.tsx'
import { fileOfAddress } from '../../../controls/imageFile.ts'

/** A picture that somebody must say of what it shows before it is kept. */
export interface WaitingPicture {
  id: string
  file: File
  alternativeText: string
}
/** What is put in of something pasted: where a picture waits, its source is `waiting:` and its id. */
export interface PastedIn {
  html: string
  pictures: WaitingPicture[]
  left: string[]
}

let lastId = 0
const waitingPicture = (file: File, alternativeText: string): WaitingPicture => ({
  id: String(++lastId),
  file,
  alternativeText,
})
export const waitingSource = ({ id }: WaitingPicture): string => `waiting:${id}`
/** Whether a file goes into a page as a picture; others are documents that it leads to. */
export const isPicture = ({ type }: File): boolean => type.startsWith('image/')
const waitingImage = /<img\b[^>]*\bsrc="waiting:[^"]*"[^>]*>/g
/** HTML without the pictures that still wait. */
export const withoutWaiting = (html: string): string => html.replace(waitingImage, '')

const fileOf = (
  { source, alternativeText }: PastedPicture,
  index: number,
): WaitingPicture | null => {
  const file = fileOfAddress(source, `picture-${index + 1}`)
  return file && waitingPicture(file, alternativeText)
}

/** Pictures that were dropped or copied as files, and how many other files were. */
export const picturesAmong = (files: readonly File[]): Omit<PastedIn, 'html'> => {
  const pictures = files.filter(isPicture)
  const others = files.length - pictures.length
  return {
    pictures: pictures.map((file) => waitingPicture(file, '')),
    left: others === 0 ? [] : [plural(others, 'file')],
  }
}

/**
 * What is kept of what was copied; null: it is our own, and put in as it is.
 * @param takesPictures whether pictures can be kept; they are left out otherwise, and said to be
 */
export const pastedIn = (clipboard: DataTransfer, takesPictures: boolean): PastedIn | null => {
  const html = clipboard.getData('text/html')
  if (html.includes('data-pm-slice')) return null
  const text = clipboard.getData('text/plain')
  const files = [...clipboard.files]
  const pasted =
    html !== ''
      ? readPasted(html)
      : text !== ''
        ? readPastedText(text)
        : { html: '', pictures: [], left: [] }
  // One picture copied from a page: its address, which nothing is asked of, and beside it the picture itself.
  const onlyFiles = pasted.html === ''
  const among = onlyFiles ? picturesAmong(files) : { pictures: [], left: [] }
  const waiting = takesPictures ? pasted.pictures.map(fileOf) : pasted.pictures.map(() => null)
  const lost = waiting.filter((picture) => picture === null).length
  const own = takesPictures ? among.pictures : []
  const shown = pasted.html.replace(/<img src="asset:pasted-(\d+)">/g, (_, index: string) => {
    const picture = waiting[Number(index)]
    return picture ? `<img src="${waitingSource(picture)}">` : ''
  })
  const leftOut = lost + (among.pictures.length - own.length)
  return {
    html: shown + own.map((picture) => `<img src="${waitingSource(picture)}">`).join(''),
    pictures: [...waiting.filter((picture) => picture !== null), ...own],
    left: [
      ...(own.length > 0 ? [] : pasted.left),
      ...among.left,
      ...(leftOut === 0 ? [] : [plural(leftOut, 'picture')]),
    ],
  }
}
