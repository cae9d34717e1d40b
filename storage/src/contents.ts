import { createHash } from 'node:crypto'
import type { Pool } from 'mysql2/promise'
import { institutionNow } from './clock.ts'
import { change, databaseErrorCode, firstRow, inTransaction, type Database } from './transaction.ts'

/*
 * The bytes of files, by what they are: the same bytes are kept once. They are written and read in pieces, so that none meets the
 * limit of a packet and no file is in memory whole. The tables are `file_contents` and `file_pieces`, in every schema that keeps files.
 */

/** How large a piece is, in bytes: well under the smallest packet that MariaDB is set to (1 MiB in its documentation). */
const pieceBytes = 256 * 1024

export type Kept =
  /** `content`: SHA-256 in hexadecimal digits. */
  | { state: 'kept'; content: string; bytes: number; isNew: boolean }
  | { state: 'too-large' }
  | { state: 'empty' }

const begin = (database: Database): Promise<number> =>
  change(
    database,
    `INSERT INTO file_contents (begun_at)
     VALUES (${institutionNow})`,
  ).then(({ id }) => id)
const addPiece = (database: Database, id: number, number: number, bytes: Buffer) =>
  change(
    database,
    `INSERT INTO file_pieces (file_id, number, bytes)
     VALUES (?, ?, ?)`,
    [id, number, bytes],
  )
const forget = (database: Database, id: number) =>
  change(
    database,
    `DELETE FROM file_contents
     WHERE id = ?`,
    [id],
  )
const nameIt = (database: Database, id: number, content: string, bytes: number) =>
  change(
    database,
    `UPDATE file_contents
     SET content = ?, bytes = ?
     WHERE id = ?`,
    [content, bytes, id],
  )

/** Gives what arrived its name. @returns false where the same is kept already */
const isNamed = async (
  database: Database,
  id: number,
  content: string,
  bytes: number,
): Promise<boolean> => {
  try {
    await nameIt(database, id, content, bytes)
    return true
  } catch (cause) {
    if (databaseErrorCode(cause) !== 'ER_DUP_ENTRY') throw cause
    return false
  }
}

/** Pieces of one size, whatever the sizes in which they come; the last may be smaller. */
async function* inPieces(source: AsyncIterable<Uint8Array>): AsyncGenerator<Buffer> {
  let held: Uint8Array[] = []
  let size = 0
  for await (const some of source) {
    held.push(some)
    size += some.byteLength
    if (size < pieceBytes) continue
    const all = Buffer.concat(held)
    let from = 0
    for (; all.length - from >= pieceBytes; from += pieceBytes)
      yield all.subarray(from, from + pieceBytes)
    const rest = all.subarray(from)
    held = [rest]
    size = rest.byteLength
  }
  if (size > 0) yield Buffer.concat(held)
}

/**
 * Keeps bytes as they come. What breaks off, is too large or empty leaves nothing behind; what is there already is not kept twice.
 * @throws what the source throws
 */
export const keepContent = async (
  pool: Pool,
  source: AsyncIterable<Uint8Array>,
  mostBytes: number,
): Promise<Kept> => {
  const id = await begin(pool)
  try {
    const hash = createHash('sha256')
    let bytes = 0
    let number = 0
    for await (const piece of inPieces(source)) {
      bytes += piece.byteLength
      if (bytes > mostBytes) {
        await forget(pool, id)
        return { state: 'too-large' }
      }
      hash.update(piece)
      await addPiece(pool, id, number++, piece)
    }
    if (bytes === 0) {
      await forget(pool, id)
      return { state: 'empty' }
    }
    const content = hash.digest('hex')
    const isNew = await isNamed(pool, id, content, bytes)
    if (!isNew) await forget(pool, id)
    return { state: 'kept', content, bytes, isNew }
  } catch (cause) {
    await forget(pool, id).catch(() => undefined)
    throw cause
  }
}

const contentRow = (database: Database, content: string) =>
  firstRow<{ id: number; bytes: number }>(
    database,
    `SELECT id, bytes
     FROM file_contents
     WHERE content = ?`,
    [content],
  )

/** How many bytes a content has; null where it is not kept. */
export const bytesKept = async (database: Database, content: string): Promise<number | null> => {
  const row = await contentRow(database, content)
  return row && Number(row.bytes)
}

/** A content piece by piece, in order; null where it is not kept. @throws where a piece is missing */
export const contentPieces = async (
  database: Database,
  content: string,
): Promise<AsyncIterable<Buffer> | null> => {
  const row = await contentRow(database, content)
  if (!row) return null
  const { id, bytes } = row
  return (async function* () {
    let sent = 0
    for (let number = 0; sent < Number(bytes); number++) {
      const piece = await firstRow<{ bytes: Buffer }>(
        database,
        `SELECT bytes
         FROM file_pieces
         WHERE file_id = ? AND number = ?`,
        [id, number],
      )
      if (!piece) throw new Error(`piece ${number} of the file ${content} is missing`)
      sent += piece.bytes.byteLength
      yield piece.bytes
    }
  })()
}

/** A content in memory; null where it is not kept. */
export const contentWhole = async (database: Database, content: string): Promise<Buffer | null> => {
  const pieces = await contentPieces(database, content)
  if (!pieces) return null
  const all: Buffer[] = []
  for await (const piece of pieces) all.push(piece)
  return Buffer.concat(all)
}

/** Takes a content out, with its pieces. */
export const forgetContent = async (database: Database, content: string): Promise<void> => {
  await change(
    database,
    `DELETE FROM file_contents
     WHERE content = ?`,
    [content],
  )
}

/** Takes out what began to arrive so many hours ago and never came to its end. @returns how many */
export const forgetUnfinished = (pool: Pool, hours: number): Promise<number> =>
  inTransaction(pool, async (database) => {
    const { affected } = await change(
      database,
      `DELETE FROM file_contents
       WHERE content IS NULL AND begun_at < TIMESTAMPADD(HOUR, ?, ${institutionNow})
       LIMIT 50`,
      [-hours],
    )
    return affected
  })
