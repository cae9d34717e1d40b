import { change, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import type { Account } from '@wickerframe/contract'
import { byInstitution, instantOfRow } from '../moment.ts'
import { markSignedIn, personColumns, personOfRow, type Person, type PersonRow } from './people.ts'
import { hashOf, newToken } from './tokens.ts'

/** A session ends so long after it began, whatever happens. */
const sessionHours = 12
/** And so long after anything was asked in it. */
const idleMinutes = 120
/** That something was asked is written down this seldom. */
const seenEverySeconds = 60
/** A device on which somebody signed in is known for so long after its last sign-in. */
const deviceDays = 180

export const beginSession = async (database: Database, personId: number): Promise<string> => {
  const token = newToken()
  await change(
    database,
    `INSERT INTO sessions (token_hash, person_id, expires_at)
     VALUES (?, ?, TIMESTAMPADD(HOUR, ?, NOW(3)))`,
    [hashOf(token), personId, sessionHours],
  )
  await markSignedIn(database, personId)
  return token
}

/**
 * Whose session it is; null when it ended, was idle too long, the password was changed since it began, or they may not sign
 * in any more.
 */
export const personOfSession = async (
  database: Database,
  token: string,
  { marking = true } = {},
): Promise<Person | null> => {
  const found = await findSession(database, hashOf(token))
  if (!found) return null
  if (marking && found.seen >= seenEverySeconds) await markSeen(database, hashOf(token))
  return personOfRow(found)
}
const findSession = (database: Database, tokenHash: string) =>
  firstRow<PersonRow & { seen: number }>(
    database,
    `SELECT ${personColumns}, TIMESTAMPDIFF(SECOND, sessions.seen_at, NOW(3)) AS seen
     FROM sessions
     JOIN people ON people.id = sessions.person_id
     WHERE sessions.token_hash = ?
       AND sessions.expires_at > NOW(3)
       AND sessions.seen_at > TIMESTAMPADD(MINUTE, ?, NOW(3))
       AND sessions.began_at >= people.password_changed_at
       AND people.deactivated_at IS NULL`,
    [tokenHash, -idleMinutes],
  )
const markSeen = (database: Database, tokenHash: string) =>
  change(
    database,
    `UPDATE sessions
     SET seen_at = NOW(3)
     WHERE token_hash = ?`,
    [tokenHash],
  )

export const endSession = async (database: Database, token: string): Promise<void> => {
  await change(
    database,
    `DELETE FROM sessions
     WHERE token_hash = ?`,
    [hashOf(token)],
  )
}
export const endSessionsOf = async (database: Database, personId: number): Promise<void> => {
  await change(
    database,
    `DELETE FROM sessions
     WHERE person_id = ?`,
    [personId],
  )
}
/** Sessions of somebody that still stand, latest first. An id is the beginning of what the token is kept as. */
export const listSessions = async (
  database: Database,
  personId: number,
  token: string | null,
): Promise<Account['sessions']> =>
  (
    await rowsOf<{ token_hash: string; began: string; seen: string }>(
      database,
      `SELECT token_hash, ${byInstitution('began_at')} AS began, ${byInstitution('seen_at')} AS seen
       FROM sessions
       WHERE person_id = ? AND expires_at > NOW(3) AND seen_at > TIMESTAMPADD(MINUTE, ?, NOW(3))
       ORDER BY seen_at DESC
       LIMIT 100`,
      [personId, -idleMinutes],
    )
  ).map((row) => ({
    id: row.token_hash.slice(0, idLength),
    beganAt: instantOfRow(row.began),
    seenAt: instantOfRow(row.seen),
    isThis: token !== null && row.token_hash === hashOf(token),
  }))
const idLength = 16

/** Ends one of somebody's sessions by its id. @returns false when there is none */
export const endSessionById = async (
  database: Database,
  personId: number,
  id: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `DELETE FROM sessions
       WHERE person_id = ? AND LEFT(token_hash, ${idLength}) = ?`,
      [personId, id],
    )
  ).affected > 0
export const removeEndedSessions = async (database: Database): Promise<void> => {
  await change(
    database,
    `DELETE FROM sessions
     WHERE expires_at < NOW(3)
     ORDER BY expires_at
     LIMIT 1000`,
  )
}

/** Whether somebody signed in on this device before; a stranger's guesses at their password do not lock it out. */
export const isKnownDevice = async (
  database: Database,
  token: string,
  personId: number,
): Promise<boolean> =>
  (await firstRow(
    database,
    `SELECT 1 AS known
     FROM known_devices
     WHERE token_hash = ? AND person_id = ? AND used_at > TIMESTAMPADD(DAY, ?, NOW(3))`,
    [hashOf(token), personId, -deviceDays],
  )) !== null
/** The name under which tries from a device are counted. */
export const deviceName = hashOf
/** Makes a device known, under a token of its own for each person. @returns the token */
export const rememberDevice = async (
  database: Database,
  personId: number,
  token: string = newToken(),
): Promise<string> => {
  await change(
    database,
    `INSERT INTO known_devices (token_hash, person_id, used_at)
     VALUES (?, ?, NOW(3))
     ON DUPLICATE KEY UPDATE used_at = NOW(3)`,
    [hashOf(token), personId],
  )
  return token
}
export const forgetOldDevices = async (database: Database): Promise<void> => {
  await change(
    database,
    `DELETE FROM known_devices
     WHERE used_at < TIMESTAMPADD(DAY, ?, NOW(3))
     ORDER BY used_at
     LIMIT 1000`,
    [-deviceDays],
  )
}
