import { anyOf, change, rowsOf, type Database } from '@wickerframe/storage'

const mostCharacters = 48_000_000

/** Bodies this process has seen lately, oldest out first. */
const seen = new Map<string, string>()
let characters = 0
const saved = new Set<string>()
const mostSaved = 200_000
const mostAsked = 256

/** Read once: most pages are of one course, and are not asked for again; one that is asked for twice is kept. */
const readOnce = new Set<string>()

const keep = (id: string, html: string): void => {
  if (seen.has(id)) return
  seen.set(id, html)
  characters += html.length
  for (const [oldest, text] of seen) {
    if (characters <= mostCharacters) break
    seen.delete(oldest)
    characters -= text.length
  }
}

/** Bodies by their hash: those seen lately, the others from the database. One that is nowhere is left out. */
export const findBodies = async (
  database: Database,
  wanted: Iterable<string>,
): Promise<Map<string, string>> => {
  const found = new Map<string, string>()
  const missing: string[] = []
  for (const id of new Set(wanted)) {
    const html = seen.get(id)
    if (html === undefined) missing.push(id)
    else found.set(id, html)
  }
  for (let i = 0; i < missing.length; i += mostAsked) {
    const part = anyOf(missing.slice(i, i + mostAsked))
    for (const row of await rowsOf<{ hash: string; html: string }>(
      database,
      `SELECT hash, html
       FROM page_bodies
       WHERE hash IN ${part.sql}`,
      part.values,
    )) {
      found.set(row.hash, row.html)
      saved.add(row.hash)
      if (readOnce.has(row.hash)) keep(row.hash, row.html)
      else {
        if (readOnce.size >= mostSaved) readOnce.clear()
        readOnce.add(row.hash)
      }
    }
  }
  return found
}

/**
 * Keeps page bodies by their hash. In the order of their hashes, so that two that store at once never wait for each other in
 * a circle. Called outside the transaction that names them: a body that nobody names harms nobody.
 * @param again also those that this process knows to be kept: the collector may have taken them out since
 */
export const savePageBodies = async (
  database: Database,
  bodies: ReadonlyMap<string, string>,
  again = false,
): Promise<void> => {
  const sorted = [...bodies]
    .filter(([id]) => again || !saved.has(id))
    .sort(([a], [b]) => (a < b ? -1 : 1))
  for (let i = 0; i < sorted.length; i += 50) {
    const part = sorted.slice(i, i + 50)
    await change(
      database,
      `INSERT IGNORE INTO page_bodies (hash, html)
       VALUES ${part.map(() => '(?, ?)').join(', ')}`,
      part.flat(),
    )
  }
  if (saved.size > mostSaved) saved.clear()
  for (const [id, html] of sorted) {
    saved.add(id)
    keep(id, html)
  }
}
