import type { fileRoutes } from '@wickerframe/contract'
import {
  fileEndings,
  fileNameFor,
  kindOfFileName,
  mostFileBytes,
  mostFileWords,
  sizeInWords,
  type Result,
} from '@wickerframe/core'
import type { Handout } from '@wickerframe/interchange'
import { contentPieces, contentWhole, forgetContent, keepContent } from '@wickerframe/storage'
import { hasAnswered, type HandlersOf, type Situation } from '../http/handler.ts'
import { HttpProblem, notFound } from '../http/problem.ts'
import { FileGivenUp } from './fileThreads.ts'
import { keepReading } from './fileReadings.ts'
import { sendFile } from './sendFile.ts'

const tooLarge = (name: string): HttpProblem =>
  new HttpProblem(
    413,
    'too-large',
    `“${name}” is larger than ${sizeInWords(mostFileBytes)}; make it smaller, or put it where it can be linked`,
  )

/** What a file holds, read in a thread with a deadline. */
const readingOf = async (
  { files }: Pick<Situation, 'files'>,
  bytes: Buffer,
  name: string,
): Promise<Result<Handout, string>> => {
  try {
    return await files.read('handout', bytes, { name })
  } catch (cause) {
    if (cause instanceof FileGivenUp) return { ok: false, problems: cause.message }
    throw cause
  }
}

export const fileHandlers: HandlersOf<typeof fileRoutes> = {
  putFile: async ({ request, pool, files, query }) => {
    const name = fileNameFor(query.name)
    if (name === null)
      throw new HttpProblem(
        400,
        'unusable-input',
        `“${query.name.slice(0, 200)}” is none that may be put in; files that end in ${fileEndings.join(', ')} may`,
      )
    if (Number(request.get('content-length')) > mostFileBytes) throw tooLarge(name)
    const kept = await keepContent(pool, request, mostFileBytes)
    if (kept.state === 'too-large') throw tooLarge(name)
    if (kept.state === 'empty')
      throw new HttpProblem(400, 'unusable-input', `“${name}” is empty; send the bytes of the file`)
    const { content, bytes, isNew } = kept
    const whole = await contentWhole(pool, content)
    if (!whole) throw new Error(`the file ${content} was kept a moment ago`)
    const read = await readingOf({ files }, whole, name)
    if (!read.ok) {
      // What is refused leaves nothing behind; what was there before stays.
      if (isNew) await forgetContent(pool, content)
      throw new HttpProblem(400, 'unusable-input', `“${name}” was not put in: ${read.problems}`)
    }
    const { words, ...known } = read.value
    await keepReading(pool, content, words)
    // A template holds the text of forms, not of books.
    const isHeld = words !== null && words.length <= mostFileWords
    return { fileName: name, content, bytes, ...known, ...(isHeld ? { words } : {}) }
  },
  getFile: async ({ pool, response, at, query }) => {
    const pieces = await contentPieces(pool, at.content)
    if (!pieces || kindOfFileName(query.name) === null) throw notFound('file')
    await sendFile(response, query.name, pieces)
    return hasAnswered
  },
}
