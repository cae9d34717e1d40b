import type { KeptFile } from '@wickerframe/contract'
import {
  fileEndings,
  fileNameFor,
  mostFileBytes,
  mostFileWords,
  sizeInWords,
  type Result,
} from '@wickerframe/core'
import type { Handout } from '@wickerframe/interchange'
import { contentWhole, forgetContent, keepContent } from '@wickerframe/storage'
import type { Situation } from '../http/handler.ts'
import { HttpProblem } from '../http/problem.ts'
import { FileGivenUp } from './fileThreads.ts'
import { keepReading } from './fileReadings.ts'

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

/**
 * Keeps the bytes of a file as they come, once they are seen to be what its name says; what is refused leaves nothing behind.
 * @param called what it is called where it comes from
 * @returns `isNew`: whether the same bytes were not kept before
 * @throws HttpProblem in words for people
 */
export const keepHandout = async (
  { request, pool, files }: Pick<Situation, 'request' | 'pool' | 'files'>,
  called: string,
): Promise<{ file: KeptFile; isNew: boolean }> => {
  const name = fileNameFor(called)
  if (name === null)
    throw new HttpProblem(
      400,
      'unusable-input',
      `“${called.slice(0, 200)}” is none that may be put in; files that end in ${fileEndings.join(', ')} may`,
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
    // What was there before stays.
    if (isNew) await forgetContent(pool, content)
    throw new HttpProblem(400, 'unusable-input', `“${name}” was not put in: ${read.problems}`)
  }
  const { words, ...known } = read.value
  await keepReading(pool, content, words)
  // A template holds the text of forms, not of books.
  const isHeld = words !== null && words.length <= mostFileWords
  return { file: { fileName: name, content, bytes, ...known, ...(isHeld ? { words } : {}) }, isNew }
}
