import type { Message } from '@wickerframe/contract'
import { change, rowsOf, type Database, institutionNow } from '@wickerframe/storage'
import { instantOfRow } from '../moment.ts'

/**
 * Tells whoever began a rollout that it has ended, once; of answers, which somebody sees written, only where they were not. For who does not want to be told,
 * the message counts as read.
 */
export const sendRunMessages = async (database: Database): Promise<void> => {
  await change(
    database,
    `INSERT IGNORE INTO messages (recipient, run_id, sent_at, subject, body, read_at)
     SELECT runs.created_by, runs.id, ${institutionNow}, CONCAT('Ended: ', LEFT(runs.title, 280)),
       CONCAT(
         (SELECT COUNT(*) FROM tasks WHERE tasks.run_id = runs.id AND tasks.state = 'done'),
           ' courses done, ',
           (SELECT COUNT(*) FROM tasks WHERE tasks.run_id = runs.id AND tasks.state = 'failed'),
           ' failed, ',
           (SELECT COUNT(*) FROM tasks WHERE tasks.run_id = runs.id AND tasks.state = 'held'),
           ' wait for approval again, ',
           (SELECT COUNT(*) FROM tasks WHERE tasks.run_id = runs.id AND tasks.state = 'cancelled'),
           ' left out.'
       ),
       IF(
         JSON_VALUE(people.preferences, '$.tellOfRollouts') IN ('0', 'false'), ${institutionNow},
           NULL
       )
     FROM runs
     LEFT JOIN people ON people.email = runs.created_by
     WHERE (
       runs.kind IN ('rollout', 'renames', 'mends')
         OR (
           runs.kind = 'answers'
             AND EXISTS (
               SELECT 1
               FROM tasks
               WHERE tasks.run_id = runs.id AND tasks.state = 'failed'
             )
         )
     )
       AND runs.state = 'done'
       AND NOT EXISTS (SELECT 1 FROM messages WHERE messages.run_id = runs.id)`,
  )
}

export interface ToTell {
  /** Whom, by e-mail. */
  email: string
  courseId: number
  subject: string
  body: string
}
const toldAtOnce = 500
/** As much of a text as there is room for; half a sign at the end, or one that came broken, is no text for the database. */
const cut = (text: string, most: number): string => Buffer.from(text.slice(0, most)).toString()

/** Tells people who have an account of courses. For who does not want to be told of them, the message counts as read. */
export const tellOfCourses = async (database: Database, all: readonly ToTell[]): Promise<void> => {
  for (let from = 0; from < all.length; from += toldAtOnce)
    await insertMessages(
      database,
      all
        .slice(from, from + toldAtOnce)
        .map(({ email, courseId, subject, body }) => ({
          email,
          course: courseId,
          subject: cut(subject, 300),
          body: cut(body, 4000),
        })),
    )
}
const insertMessages = (
  database: Database,
  rows: readonly { email: string; course: number; subject: string; body: string }[],
) =>
  change(
    database,
    `INSERT INTO messages (recipient, course_id, sent_at, subject, body, read_at)
     SELECT people.email, told.course, ${institutionNow}, told.subject, told.body,
       IF(
         JSON_VALUE(people.preferences, '$.tellOfCourses') IN ('0', 'false'), ${institutionNow},
           NULL
       )
     FROM JSON_TABLE(
       ?,
         '$[*]' COLUMNS (
           place FOR ORDINALITY, email VARCHAR(320) PATH '$.email', course INT PATH '$.course',
             subject VARCHAR(300) PATH '$.subject', body TEXT PATH '$.body'
         )
     ) AS told
     JOIN people ON people.email = told.email
     WHERE people.deactivated_at IS NULL
     ORDER BY told.place`,
    [JSON.stringify(rows)],
  )
/** Tells one person of one course. */
export const tellOfCourse = (
  database: Database,
  email: string,
  courseId: number,
  message: { subject: string; body: string },
): Promise<void> => tellOfCourses(database, [{ email, courseId, ...message }])

export const listMessages = async (
  database: Database,
  recipient: string,
  most = 100,
): Promise<Message[]> =>
  (
    await rowsOf<{
      id: number
      run: number | null
      template: string | null
      course: number | null
      at: string
      subject: string
      body: string
      readAt: string | null
    }>(
      database,
      `SELECT messages.id, messages.run_id AS run, templates.template_key AS template,
         messages.course_id AS course, messages.sent_at AS at, messages.subject, messages.body,
         messages.read_at AS readAt
       FROM messages
       LEFT JOIN templates ON templates.id = messages.template_id
       WHERE messages.recipient = ?
       ORDER BY messages.id DESC
       LIMIT ?`,
      [recipient, String(most)],
    )
  ).map(({ readAt, ...row }) => ({ ...row, at: instantOfRow(row.at), read: readAt !== null }))

export const markRead = async (
  database: Database,
  recipient: string,
  id: number,
): Promise<boolean> =>
  (
    await change(
      database,
      `UPDATE messages
       SET read_at = COALESCE(read_at, ${institutionNow})
       WHERE id = ? AND recipient = ?`,
      [id, recipient],
    )
  ).affected === 1

/** Takes away messages older than so many days, some at a time. */
export const forgetMessages = (database: Database, days: number) =>
  change(
    database,
    `DELETE FROM messages
     WHERE sent_at < TIMESTAMPADD(DAY, -?, ${institutionNow})
     ORDER BY id
     LIMIT 1000`,
    [days],
  )
