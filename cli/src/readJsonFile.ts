import { readFile, stat } from 'node:fs/promises'
import { failure, readDocument, type Problem, type Result } from '@wickerframe/core'
import type { z } from 'zod'
import type { Streams } from './command.ts'
import { Unusable } from './unusable.ts'

const largestBytes = 64 * 1024 * 1024

const unusable = (
  code: string,
  found: string,
  expected: string,
): { ok: false; problems: Problem[] } => failure([{ code, path: '', found, expected }])

/** Reads a file, or standard input for `-`, as a document: UTF-8 (a byte order mark is skipped), JSON, then its schema. */
export const readJsonFile = async <S extends z.ZodType>(
  path: string,
  schema: S,
  { input }: Pick<Streams, 'input'>,
): Promise<Result<z.output<S>>> => {
  let bytes: Uint8Array
  try {
    const size = path === '-' ? 0 : (await stat(path)).size
    if (size > largestBytes)
      return unusable('too-big', `${size} bytes`, `a file of at most ${largestBytes} bytes`)
    bytes = path === '-' ? await input() : await readFile(path)
  } catch (cause) {
    if (cause instanceof Unusable) throw cause
    const code = cause instanceof Error && 'code' in cause ? String(cause.code) : 'error'
    return unusable(
      'unreadable',
      code === 'ENOENT' ? 'no such file' : code,
      'a file that can be read',
    )
  }
  let text: string
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return unusable('not-utf-8', 'bytes that are not UTF-8', 'a JSON document in UTF-8')
  }
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch (cause) {
    return unusable(
      'not-json',
      cause instanceof Error ? cause.message.slice(0, 120) : 'text',
      'a JSON document',
    )
  }
  try {
    return readDocument(schema, json)
  } catch (cause) {
    if (cause instanceof RangeError)
      return unusable('too-deep', 'values nested thousands deep', 'a document of this schema')
    throw cause
  }
}
