import type { PersonEntry } from '@wickerframe/contract'
import { rowsOf, type Database } from '@wickerframe/storage'
import { findSelf } from './people.ts'
import { listSessions } from './sessions.ts'
import { rowsNaming, traces } from './traces.ts'

/**
 * Everything that is kept about somebody, as a document: the account, and every row that names them, by table. A page that they
 * wrote in a course is the course's; it is not in it.
 */
export const keptAbout = async (
  database: Database,
  entry: PersonEntry,
): Promise<Record<string, unknown>> => {
  const named: Record<string, unknown> = {}
  for (const trace of traces) {
    const rows = await rowsNaming(database, trace, entry.email)
    if (rows.length > 0) named[`${trace.table}.${trace.column}`] = rows
  }
  return {
    schema: 'wickerframe.person/1',
    account: {
      ...entry,
      preferences: (await findSelf(database, entry.id))?.preferences ?? null,
      sessions: (await listSessions(database, entry.id, null)).map(({ beganAt, seenAt }) => ({
        beganAt,
        seenAt,
      })),
    },
    messages: await messagesTo(database, entry.email),
    requests: await requestsOf(database, entry.email),
    identities: await identitiesOf(database, entry.id),
    named,
  }
}

const messagesTo = (database: Database, email: string) =>
  rowsOf(
    database,
    `SELECT sent_at, subject, body, read_at
     FROM messages
     WHERE recipient = ?`,
    [email],
  )
const requestsOf = (database: Database, email: string) =>
  rowsOf(
    database,
    `SELECT name, words, asked_at, state, answer
     FROM account_requests
     WHERE email = ?`,
    [email],
  )
const identitiesOf = (database: Database, id: number) =>
  rowsOf(
    database,
    `SELECT issuer, subject
     FROM outside_identities
     WHERE person_id = ?`,
    [id],
  )
