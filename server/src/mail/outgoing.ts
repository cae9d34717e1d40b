import { change, institutionNow, rowsOf, type Database } from '@wickerframe/storage'
import { canSignIn } from '../people/administrators.ts'

/** Somebody with messages that go out by mail now. */
export interface Recipient {
  id: number
  email: string
  name: string
}
export interface OutgoingMessage {
  id: number
  run: number | null
  template: string | null
  course: number | null
  subject: string
  body: string
}

/** What somebody wants, who said nothing. */
const wanted = `COALESCE(JSON_VALUE(people.preferences, '$.byMail'), 'daily')`
/** What came together is told together. */
const gatheredSeconds = 60
/** For so long nobody else sends to somebody who is being sent to. */
const heldMinutes = 10

/** Who is to get mail now: they can sign in, have messages they did not read, and wanted no digest or got none for a day. */
export const recipientsDue = (database: Database, most: number): Promise<Recipient[]> =>
  rowsOf(
    database,
    `SELECT people.id, people.email, people.name
     FROM people
     WHERE ${canSignIn}
       AND (people.mail_after IS NULL OR people.mail_after <= NOW(3))
       AND (
         ${wanted} = 'at once'
           OR (
             ${wanted} = 'daily'
               AND (people.mailed_at IS NULL OR people.mailed_at <= TIMESTAMPADD(DAY, -1, NOW(3)))
           )
       )
       AND EXISTS (
         SELECT 1
         FROM messages
         WHERE messages.recipient = people.email
           AND messages.read_at IS NULL
           AND messages.mailed_at IS NULL
           AND messages.sent_at <= TIMESTAMPADD(SECOND, -${gatheredSeconds}, ${institutionNow})
       )
     ORDER BY people.mail_after, people.id
     LIMIT ${most}`,
  )

/** Takes on sending to somebody. @returns false when somebody else does already */
export const takeOn = async (database: Database, id: number): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE people
       SET mail_after = TIMESTAMPADD(MINUTE, ${heldMinutes}, NOW(3))
       WHERE id = ? AND (mail_after IS NULL OR mail_after <= NOW(3))`,
      [id],
    )
  ).affected === 1

/** What somebody did not read and was not sent, oldest first. */
export const outgoingTo = (
  database: Database,
  email: string,
  most: number,
): Promise<OutgoingMessage[]> =>
  rowsOf(
    database,
    `SELECT messages.id, messages.run_id AS run, templates.template_key AS template,
       messages.course_id AS course, messages.subject, messages.body
     FROM messages
     LEFT JOIN templates ON templates.id = messages.template_id
     WHERE messages.recipient = ? AND messages.read_at IS NULL AND messages.mailed_at IS NULL
     ORDER BY messages.id
     LIMIT ${most}`,
    [email],
  )

/** Everything of somebody up to a message went out, or will not. @param problem why it was refused for good; null: it was sent */
export const settle = async (
  database: Database,
  { id, email }: Recipient,
  last: number,
  problem: string | null,
): Promise<void> => {
  await markMailed(database, email, last)
  await change(
    database,
    `UPDATE people
     SET mailed_at = NOW(3), mail_after = NULL, mail_problem = ?
     WHERE id = ?`,
    [problem, id],
  )
}

/** Leaves somebody for later. */
export const putOff = async (database: Database, id: number, minutes: number): Promise<void> => {
  await change(
    database,
    `UPDATE people
     SET mail_after = TIMESTAMPADD(MINUTE, ?, NOW(3))
     WHERE id = ?`,
    [minutes, id],
  )
}

const markMailed = (database: Database, email: string, last: number) =>
  change(
    database,
    `UPDATE messages
     SET mailed_at = ${institutionNow}
     WHERE recipient = ? AND id <= ? AND mailed_at IS NULL`,
    [email, last],
  )
