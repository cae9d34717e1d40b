import { FileGivenUp } from '../files/fileThreads.ts'
import type { FileKind, FileOptions, FileReading } from '../files/fileReaders.ts'
import type { Situation } from './handler.ts'
import { HttpProblem } from './problem.ts'

/**
 * Reads the file that was sent as the body, in a thread with a deadline.
 * @param what such as `the roster file, as text/csv`
 * @throws HttpProblem 400 where there is none, or it was given up
 */
export const fileOf = async <K extends FileKind>(
  { request, files }: Pick<Situation, 'request' | 'files'>,
  kind: K,
  options: FileOptions<K>,
  what: string,
): Promise<FileReading<K>> => {
  const bytes: unknown = request.body
  if (!Buffer.isBuffer(bytes) || bytes.length === 0)
    throw new HttpProblem(400, 'unusable-input', `send ${what}`)
  try {
    return await files.read(kind, bytes, options)
  } catch (cause) {
    if (cause instanceof FileGivenUp) throw new HttpProblem(400, 'unusable-input', cause.message)
    throw cause
  }
}
