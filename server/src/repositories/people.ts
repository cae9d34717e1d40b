import { createHash, randomBytes } from 'node:crypto'
import { hash, verify } from '@node-rs/argon2'
import type { Role } from '@wickerframe/contract'
import { change, firstRow, type Database } from '@wickerframe/storage'

export interface Person {
  id: number
  email: string
  name: string
  role: Role
}

const sessionHours = 12
const failuresAllowed = 8
const failureMinutes = 10

export const addPerson = async (
  database: Database,
  person: Omit<Person, 'id'> & { password: string },
): Promise<void> => {
  await change(
    database,
    `INSERT INTO people (email, name, role, password_hash)
     VALUES (?, ?, ?, ?)
     ON DUPLICATE KEY UPDATE name = VALUES(name), role = VALUES(role)`,
    [person.email.toLowerCase(), person.name, person.role, await hash(person.password)],
  )
}

/** A hash to compare with when nobody has that address, so that the answer takes as long. Argon2id of a random value. */
const nobody = hash(randomBytes(16).toString('hex'))

/** Signs somebody in. `throttled` after too many failures for one address in ten minutes. */
export const signIn = async (
  database: Database,
  email: string,
  password: string,
): Promise<{ token: string; person: Person } | 'wrong' | 'throttled'> => {
  const address = email.trim().toLowerCase()
  if ((await countFailures(database, address)) >= failuresAllowed) return 'throttled'
  const found = await findWithPassword(database, address)
  const right = await verify(found?.password_hash ?? (await nobody), password)
  if (!found || !right) {
    await recordFailure(database, address)
    return 'wrong'
  }
  const token = randomBytes(32).toString('base64url')
  await removeExpiredSessions(database)
  await insertSession(database, token, found.id)
  const { password_hash: _, ...person } = found
  return { token, person }
}

const countFailures = async (database: Database, address: string): Promise<number> =>
  Number(
    (
      await firstRow<{ count: number }>(
        database,
        `SELECT COUNT(*) AS count
         FROM sign_in_failures
         WHERE email = ? AND failed_at > TIMESTAMPADD(MINUTE, ?, NOW(3))`,
        [address, -failureMinutes],
      )
    )?.count,
  )
const recordFailure = (database: Database, address: string) =>
  change(
    database,
    `INSERT INTO sign_in_failures (email, failed_at)
     VALUES (?, NOW(3))`,
    [address],
  )
const findWithPassword = (database: Database, address: string) =>
  firstRow<Person & { password_hash: string }>(
    database,
    `SELECT id, email, name, role, password_hash
     FROM people
     WHERE email = ?`,
    [address],
  )
const removeExpiredSessions = (database: Database) =>
  change(
    database,
    `DELETE FROM sessions
     WHERE expires_at < NOW(3)`,
  )
const insertSession = (database: Database, token: string, personId: number) =>
  change(
    database,
    `INSERT INTO sessions (token_hash, person_id, expires_at)
     VALUES (?, ?, TIMESTAMPADD(HOUR, ?, NOW(3)))`,
    [tokenHash(token), personId, sessionHours],
  )

export const personOfSession = async (database: Database, token: string): Promise<Person | null> =>
  firstRow<Person>(
    database,
    `SELECT people.id, people.email, people.name, people.role
     FROM sessions
     JOIN people ON people.id = sessions.person_id
     WHERE sessions.token_hash = ? AND sessions.expires_at > NOW(3)`,
    [tokenHash(token)],
  )

export const signOut = async (database: Database, token: string): Promise<void> => {
  await change(
    database,
    `DELETE FROM sessions
     WHERE token_hash = ?`,
    [tokenHash(token)],
  )
}

const tokenHash = (token: string): string => createHash('sha256').update(token).digest('hex')
