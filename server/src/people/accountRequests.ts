import type { AccountRequest } from '@wickerframe/contract'
import { change, firstRow, institutionNow, rowsOf, type Database } from '@wickerframe/storage'
import { instantOfRow } from '../moment.ts'

/** So many wait for an answer at most: whoever floods is not let in any faster. */
const mostWaiting = 1000

/** Keeps that somebody asked for an account; once for an address, and none when very many wait. */
export const keepRequest = async (
  database: Database,
  { email, name, words }: { email: string; name: string; words: string },
): Promise<void> => {
  await change(
    database,
    `INSERT INTO account_requests (email, name, words, asked_at, state)
     SELECT ?, ?, ?, ${institutionNow}, 'asked'
     FROM (
       SELECT COUNT(*) AS waiting, COALESCE(SUM(email = ?), 0) AS theirs
       FROM account_requests
       WHERE state = 'asked'
     ) AS now
     WHERE now.waiting < ? AND now.theirs = 0`,
    [email, name, words, email, mostWaiting],
  )
}

const columns = 'id, email, name, words, asked_at AS askedAt'
const requestOfRow = (row: AccountRequest): AccountRequest => ({
  ...row,
  askedAt: instantOfRow(row.askedAt),
})

/** Requests without an answer, oldest first. */
export const listRequests = async (database: Database): Promise<AccountRequest[]> =>
  (
    await rowsOf<AccountRequest>(
      database,
      `SELECT ${columns}
       FROM account_requests
       WHERE state = 'asked'
       ORDER BY id`,
    )
  ).map(requestOfRow)

/** A request without an answer, locked so that one answer is given. */
export const lockRequest = async (
  database: Database,
  id: number,
): Promise<AccountRequest | null> => {
  const row = await firstRow<AccountRequest>(
    database,
    `SELECT ${columns}
     FROM account_requests
     WHERE id = ? AND state = 'asked'
     FOR UPDATE`,
    [id],
  )
  return row && requestOfRow(row)
}

export const answerRequest = async (
  database: Database,
  id: number,
  state: 'let-in' | 'refused',
  by: string,
  answer: string,
): Promise<void> => {
  await change(
    database,
    `UPDATE account_requests
     SET state = ?, answered_by = ?, answered_at = ${institutionNow}, answer = ?
     WHERE id = ?`,
    [state, by, answer, id],
  )
}
