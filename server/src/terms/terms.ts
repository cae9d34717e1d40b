import { readDocument, Term } from '@wickerframe/core'
import type { Pool } from 'mysql2/promise'
import { change, firstRow, inTransaction, rowsOf, type Database } from '@wickerframe/storage'
import { digestOf } from '../digest.ts'
import { recordAudit } from '../audit/audit.ts'

const known = new Map<string, Term>()
const mostKnown = 200

/** Reads a stored term; the same document is read once. */
const read = (row: { code: string; document: string }): Term => {
  const before = known.get(row.document)
  if (before) return before
  const term = readDocument(Term, JSON.parse(row.document))
  if (!term.ok)
    throw new Error(
      `term ${row.code} is stored in a form that cannot be read: ${JSON.stringify(term.problems[0])}`,
    )
  if (known.size >= mostKnown) known.clear()
  known.set(row.document, term.value)
  return term.value
}

export const putTerm = async (database: Database, term: Term): Promise<void> => {
  await change(
    database,
    `INSERT INTO terms (code, title, first_day, last_day, time_zone, document)
     VALUES (?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE title = VALUES(title), first_day = VALUES(first_day),
       last_day = VALUES(last_day), time_zone = VALUES(time_zone), document = VALUES(document)`,
    [term.code, term.title, term.firstDay, term.lastDay, term.timeZone, JSON.stringify(term)],
  )
}

export const listTerms = async (database: Database): Promise<Term[]> =>
  (
    await rowsOf<{ code: string; document: string }>(
      database,
      `SELECT code, document
       FROM terms
       ORDER BY first_day`,
    )
  ).map(read)

export const findTerm = async (database: Database, code: string): Promise<Term | null> => {
  const row = await firstRow<{ code: string; document: string }>(
    database,
    `SELECT code, document
     FROM terms
     WHERE code = ?`,
    [code],
  )
  return row && read(row)
}

/** Of a term as it stands; an edit names the revision it was made from. */
export const termRevision = (term: Term): string => digestOf(term)

export type SavedTerm =
  | { state: 'saved'; revision: string }
  | { state: 'clash'; present: Term }
  | { state: 'taken' }

/** Saves a term that was edited from a revision; null makes a new one. Somebody else's edit since is not overwritten. */
export const saveTerm = async (
  pool: Pool,
  term: Term,
  was: string | null,
  who: string,
): Promise<SavedTerm> =>
  inTransaction(pool, async (database) => {
    const row = await firstRow<{ code: string; document: string }>(
      database,
      `SELECT code, document
       FROM terms
       WHERE code = ?
       FOR UPDATE`,
      [term.code],
    )
    const present = row && read(row)
    if (was === null && present) return { state: 'taken' }
    if (was !== null && !present) return { state: 'clash', present: term }
    if (present && termRevision(present) !== was) return { state: 'clash', present }
    await putTerm(database, term)
    await recordAudit(database, {
      who,
      what: present ? 'term changed' : 'term made',
      subject: `term ${term.code}`,
      ...(present ? { from: present } : {}),
      to: term,
    })
    return { state: 'saved', revision: termRevision(term) }
  })
