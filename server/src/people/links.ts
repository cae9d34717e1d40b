import { change, firstRow, type Database } from '@wickerframe/storage'
import { byInstitution, instantOfRow } from '../moment.ts'
import { hashOf, newToken } from './tokens.ts'

/** What a one-time link is for: to be let in for the first time, or to set another password. */
export type LinkPurpose = 'invitation' | 'reset'

/** A link runs out so long after it was made. */
export const linkDays = { invitation: 14, reset: 1 } as const satisfies Record<LinkPurpose, number>

export interface Link {
  personId: number
  purpose: LinkPurpose
  email: string
  name: string
  /** By the institution’s clock. */
  until: string
}

/** Makes a link for somebody; one that they had ends. @returns its token, which is kept nowhere */
export const makeLink = async (
  database: Database,
  personId: number,
  purpose: LinkPurpose,
  by: string,
): Promise<string> => {
  const token = newToken()
  await change(
    database,
    `REPLACE INTO one_time_links (token_hash, person_id, purpose, made_by, expires_at)
     VALUES (?, ?, ?, ?, TIMESTAMPADD(DAY, ?, NOW(3)))`,
    [hashOf(token), personId, purpose, by, linkDays[purpose]],
  )
  return token
}

/** Makes invitations for many at once. @returns their tokens, in the same order */
export const makeInvitations = async (
  database: Database,
  personIds: readonly number[],
  by: string,
): Promise<string[]> => {
  const tokens = personIds.map(newToken)
  if (personIds.length > 0)
    await change(
      database,
      `REPLACE INTO one_time_links (token_hash, person_id, purpose, made_by, expires_at)
       VALUES ${personIds.map(() => "(?, ?, 'invitation', ?, TIMESTAMPADD(DAY, ?, NOW(3)))").join(', ')}`,
      personIds.flatMap((id, i) => [hashOf(tokens[i] ?? ''), id, by, linkDays.invitation]),
    )
  return tokens
}

/** The link of a token that is open, of somebody who is not deactivated. Used, run out and forged are answered alike: null. */
export const findLink = async (
  database: Database,
  token: string,
  lock: '' | 'FOR UPDATE' = '',
): Promise<Link | null> => {
  const row = await firstRow<Link>(
    database,
    `SELECT one_time_links.person_id AS personId, one_time_links.purpose, people.email, people.name,
       ${byInstitution('one_time_links.expires_at')} AS until
     FROM one_time_links
     JOIN people ON people.id = one_time_links.person_id
     WHERE one_time_links.token_hash = ?
       AND one_time_links.expires_at > NOW(3)
       AND people.deactivated_at IS NULL ${lock}`,
    [hashOf(token)],
  )
  return row && { ...row, until: instantOfRow(row.until) }
}

/** Ends the link that somebody has. */
export const endLinkOf = async (database: Database, personId: number): Promise<void> => {
  await change(
    database,
    `DELETE FROM one_time_links
     WHERE person_id = ?`,
    [personId],
  )
}

export const forgetOldLinks = async (database: Database): Promise<void> => {
  await change(
    database,
    `DELETE FROM one_time_links
     WHERE expires_at < TIMESTAMPADD(DAY, -30, NOW(3))
     ORDER BY expires_at
     LIMIT 1000`,
  )
}

/** The address of a link: the token stands behind the #, which browsers do not send and servers do not log. */
export const addressOfLink = (publicUrl: string, token: string): string =>
  `${publicUrl.replace(/\/$/, '')}/welcome#${token}`
