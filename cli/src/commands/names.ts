import {
  ambiguityOf,
  inferFormats,
  judgeName,
  nameContext,
  NameContextDocument,
  parseFormat,
  type NameContext,
  type NamingFormat,
} from '@wickerframe/core'
import type { Command } from '../command.ts'
import { exitCode } from '../exitCode.ts'
import { inferredFormats, judgedName } from '../namesDocument.ts'
import { readJsonFile } from '../readJsonFile.ts'
import { orUnusable, wanted } from '../given.ts'
import { Unusable } from '../unusable.ts'

const mostBytes = 64 * 1024 * 1024

/** Names on standard input, one a line; empty lines are none. @throws Unusable when it is not UTF-8 or too much */
const namesOf = async (input: () => Promise<Uint8Array>): Promise<string[]> => {
  const bytes = await input()
  if (bytes.length > mostBytes)
    throw new Unusable(`standard input: found ${bytes.length} bytes; expected at most ${mostBytes}`)
  try {
    return new TextDecoder('utf-8', { fatal: true })
      .decode(bytes)
      .split(/\r?\n/)
      .filter((line) => line.trim() !== '')
  } catch {
    throw new Unusable(
      'standard input: found bytes that are not UTF-8; expected one name a line in UTF-8',
    )
  }
}

const formatOf = (source: string): NamingFormat => {
  const parsed = parseFormat(source)
  if (parsed.ok) return parsed.value
  throw new Unusable(
    parsed.problems
      .map(
        ({ at, message, suggestion }) =>
          `--format, character ${at + 1}: ${message}${suggestion ? `; ${suggestion}` : ''}\n  ${source.slice(0, 200)}\n  ${' '.repeat(Math.min(at, 200))}^`,
      )
      .join('\n'),
  )
}

/** Enough at a time that a reader at the other end of a pipe sees progress, and that little is held. */
const linesAtATime = 2000

export const names: Command = async (values, streams) => {
  const { out, error, input } = streams
  if (values.infer === true) {
    const all = await namesOf(input)
    if (all.length === 0)
      throw new Unusable('standard input: found no name; expected one name a line')
    out(`${JSON.stringify(inferredFormats(all.length, inferFormats(all)), null, 2)}\n`)
    return exitCode.fine
  }
  const format = formatOf(wanted('format', values.format))
  const contextFile = values.context
  let context: NameContext = { places: [{}], near: '2026-09-01', classSections: [] }
  if (contextFile !== undefined)
    context = orUnusable(
      contextFile,
      nameContext(
        orUnusable(contextFile, await readJsonFile(contextFile, NameContextDocument, streams)),
        format,
      ),
    )
  const warning = ambiguityOf(format)
  if (warning !== null) error(`wickerframe: take care: ${warning}\n`)
  const all = await namesOf(input)
  for (let from = 0; from < all.length; from += linesAtATime)
    out(
      all
        .slice(from, from + linesAtATime)
        .map((name) => `${JSON.stringify(judgedName(name, judgeName(format, name, context)))}\n`)
        .join(''),
    )
  return exitCode.fine
}
