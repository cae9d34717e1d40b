import { fileEndings, fileNameFor, mostFileBytes, sizeInWords } from '@wickerframe/core'
import type { KeptFile } from '@wickerframe/contract'
import { ApiError, send } from '../api/client.ts'

/** What became of files that were dropped or chosen. */
export interface TakenFiles {
  kept: KeptFile[]
  /** What could not be taken, each with its reason. */
  wrong: string[]
  /** What is worth knowing of those that were. */
  remarks: string[]
}

/** Endings that a field for files offers. */
export const acceptedFiles = fileEndings.map((ending) => `.${ending}`).join(',')

/** Why a file is not even sent; null where it is. */
export const unsendable = ({ name, size }: File): string | null => {
  if (fileNameFor(name) === null)
    return `“${name}” is none that may be put in; files that end in ${fileEndings.join(', ')} may.`
  if (size === 0) return `“${name}” is empty.`
  return size > mostFileBytes
    ? `“${name}” has ${sizeInWords(size)}; at most ${sizeInWords(mostFileBytes)} are taken.`
    : null
}

const remarksOn = ({ fileName, fields, notFields, unfillable }: KeptFile): string[] => [
  ...(unfillable === null
    ? []
    : [`“${fileName}” goes out as it is, its fields are not filled: ${unfillable}.`]),
  ...(fields.length > 0 ? [`“${fileName}” is filled for each course: ${fields.join(' ')}.`] : []),
  ...(notFields.length > 0
    ? [`In “${fileName}”, ${notFields.join(' ')} is no field and stays as it stands.`]
    : []),
]

/**
 * Brings files in, one after another. Nothing shows them yet.
 * @param told is called with the name of each as it is sent
 */
export const keepFiles = async (
  files: readonly File[],
  told: (name: string) => void,
): Promise<TakenFiles> => {
  const taken: TakenFiles = { kept: [], wrong: [], remarks: [] }
  for (const file of files) {
    const why = unsendable(file)
    if (why !== null) {
      taken.wrong.push(why)
      continue
    }
    told(file.name)
    try {
      const kept = await send('putFile', file, 'application/octet-stream', {
        query: { name: file.name },
      })
      taken.kept.push(kept)
      taken.remarks.push(...remarksOn(kept))
    } catch (cause) {
      if (!(cause instanceof ApiError)) throw cause
      taken.wrong.push(cause.message)
    }
  }
  return taken
}
