import { z } from 'zod'
import { isLine } from '../document/index.ts'
import { fileEndings, kindOfFileName } from './fileKinds.ts'

/** What parts folders, what platforms use for themselves, and what turns the direction of reading, so that an ending reads as another. */
const notInNames = /[\\/:*?"<>|\u200e\u200f\u202a-\u202e\u2066-\u2069]/
const longest = 150

/** What a file may be called here and on the platform: in any language, but in no folder, and by the ending of its kind. */
export const FileName = z
  .string()
  .min(1)
  .max(longest)
  .refine(
    (name) => isLine(name) && !notInNames.test(name) && !/^[.\s]|\s$/.test(name),
    'a file name without folders, without \\ / : * ? " < > |, and without a leading dot',
  )
  .refine(
    (name) => kindOfFileName(name) !== null,
    `a file name that ends in one of ${fileEndings.join(', ')}`,
  )

/** The nearest file name that may be used; null where its ending is none that may be put in. */
export const fileNameFor = (name: string): string | null => {
  const last = name.normalize('NFC').split(/[\\/]/).at(-1) ?? ''
  const kind = kindOfFileName(last)
  if (kind === null) return null
  const dot = last.lastIndexOf('.')
  const ending = last.slice(dot)
  const stem = Array.from(last.slice(0, dot), (letter) =>
    isLine(letter) && !notInNames.test(letter) ? letter : ' ',
  )
    .join('')
    .replace(/\s+/g, ' ')
    .replace(/^[.\s]+/, '')
    .trimEnd()
  return `${stem.slice(0, longest - ending.length).trim() || 'file'}${ending}`
}

/** What a file's name says for a title: `syllabus_form-2.docx` says `syllabus form 2`. */
export const titleOfFileName = (name: string): string =>
  name
    .replace(/\.[^.]+$/, '')
    .replace(/[_\s]+|-(?=\w)/g, ' ')
    .trim() || name
