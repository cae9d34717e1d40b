import { readDocument, Term } from '@wickerframe/core'
import { change, firstRow, rowsOf, type Database } from '@wickerframe/storage'

const read = (row: { code: string; document: string }): Term => {
  const term = readDocument(Term, JSON.parse(row.document))
  if (!term.ok) throw new Error(`term ${row.code} is stored in a form that cannot be read: ${JSON.stringify(term.problems[0])}`)
  return term.value
}

export const putTerm = async (database: Database, term: Term): Promise<void> => {
  await change(
    database,
    `INSERT INTO terms (code, title, first_day, last_day, time_zone, document) VALUES (?, ?, ?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE title = VALUES(title), first_day = VALUES(first_day), last_day = VALUES(last_day), time_zone = VALUES(time_zone), document = VALUES(document)`,
    [term.code, term.title, term.firstDay, term.lastDay, term.timeZone, JSON.stringify(term)],
  )
}

export const listTerms = async (database: Database): Promise<Term[]> => (await rowsOf<{ code: string; document: string }>(database, 'SELECT code, document FROM terms ORDER BY first_day')).map(read)

export const findTerm = async (database: Database, code: string): Promise<Term | null> => {
  const row = await firstRow<{ code: string; document: string }>(database, 'SELECT code, document FROM terms WHERE code = ?', [code])
  return row && read(row)
}
