import type { Pool } from 'mysql2/promise'
import {
  canonicalJson,
  filesOfChange,
  shownOf,
  withFilesSent,
  type Change,
  type ShownFile,
  type WrittenFile,
} from '@wickerframe/core'
import { fillDocument, readHandout } from '@wickerframe/interchange'
import { bytesKept, contentPieces, contentWhole } from '@wickerframe/storage'
import type { Answer, Connector } from '../connector/client.ts'
import { unanswered } from '../connector/unanswered.ts'
import { sha256 } from '../digest.ts'
import { failed, type TaskOutcome } from '../queue/outcome.ts'
import { keepReading } from './fileReadings.ts'
import { heldThere } from './heldThere.ts'

/** Whether changes put files into a course. */
export const speakOfFiles = (changes: readonly Change[]): boolean =>
  changes.some((change) => filesOfChange(change).length > 0)

const halted = (what: string, answer: Exclude<Answer<never>, { state: 'answered' }>): TaskOutcome =>
  answer.state === 'refused'
    ? failed(`the platform refused ${what}: ${answer.detail}`)
    : unanswered(answer)

/** Puts a file on the platform unless it is there. @returns null once it is */
const send = async (
  pool: Pool,
  connector: Connector,
  { name, content }: WrittenFile,
  filled: Uint8Array | null,
): Promise<TaskOutcome | null> => {
  if (heldThere.has(content)) return null
  const what = `the file “${name}”`
  const asked = await connector.hasContent(content)
  if (asked.state !== 'answered') return halted(what, asked)
  if (!asked.value.held) {
    const bytes = filled ? filled.byteLength : await bytesKept(pool, content)
    const pieces = filled ? piecesOf(filled) : await contentPieces(pool, content)
    if (bytes === null || !pieces)
      return failed(`${what} is not here, and not on the platform either; put it in again`)
    const put = await connector.putContent(content, pieces, bytes)
    if (put.state !== 'answered') return halted(what, put)
  }
  heldThere.add(content)
  return null
}

async function* piecesOf(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  for (let from = 0; from < bytes.byteLength; from += 2 ** 18)
    yield bytes.subarray(from, from + 2 ** 18)
}

/** A document with fields, filled; its text is remembered, so that it is known from one that somebody filled in. */
const filledOf = async (
  pool: Pool,
  { name, content, fields }: WrittenFile,
): Promise<{ bytes: Uint8Array; content: string } | TaskOutcome> => {
  const source = await contentWhole(pool, content)
  if (!source) return failed(`the file “${name}” is not here any more; put it in again`)
  const bytes = fillDocument(new Uint8Array(source), fields ?? {})
  const filled = sha256(bytes)
  const read = await readHandout(bytes, name)
  await keepReading(pool, filled, read.ok ? read.value.words : null)
  return { bytes, content: filled }
}

/** Sees to it that the platform holds a file, filled where it has fields. @returns the file as it is sent, or how the task ends without it */
const sentFile = async (
  pool: Pool,
  connector: Connector,
  file: WrittenFile,
): Promise<ShownFile | TaskOutcome> => {
  const filled = file.fields ? await filledOf(pool, file) : null
  if (filled && 'state' in filled) return filled
  const shown = { name: file.name, content: filled?.content ?? file.content }
  return (await send(pool, connector, shown, filled?.bytes ?? null)) ?? shown
}

/**
 * Sees to it that the platform holds every file that changes speak of, with documents filled for their course.
 * @returns the changes as they are sent, or how the task ends without them
 */
export const filesSent = async (
  pool: Pool,
  connector: Connector,
  changes: readonly Change[],
): Promise<{ changes: Change[] } | { outcome: TaskOutcome }> => {
  const sent = new Map<string, ShownFile>()
  for (const file of changes.flatMap(filesOfChange)) {
    const key = canonicalJson(file)
    if (sent.has(key)) continue
    const shown = await sentFile(pool, connector, file)
    if ('state' in shown) return { outcome: shown }
    sent.set(key, shown)
  }
  if (sent.size === 0) return { changes: [...changes] }
  return {
    changes: changes.map((change) =>
      withFilesSent(change, (file) => sent.get(canonicalJson(file)) ?? shownOf(file)),
    ),
  }
}
