import { change, institutionNow, rowsOf, type Database } from '@wickerframe/storage'

/** Who looks after a template, by name. */
export const listCoDesigners = (
  database: Database,
  templateId: number,
): Promise<{ name: string; email: string }[]> =>
  rowsOf(
    database,
    `SELECT people.name, people.email
     FROM template_designers
     JOIN people ON people.id = template_designers.person_id
     WHERE template_designers.template_id = ?
     ORDER BY people.name`,
    [templateId],
  )

/** Lets a designer look after a template. @returns false when nobody who may has that address */
export const addCoDesigner = async (
  database: Database,
  templateId: number,
  email: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `INSERT INTO template_designers (template_id, person_id)
       SELECT ?, people.id
       FROM people
       WHERE people.email = ?
         AND EXISTS (
           SELECT 1
           FROM person_roles
           WHERE person_roles.person_id = people.id
             AND person_roles.role IN ('designer', 'administrator')
         )
       ON DUPLICATE KEY UPDATE template_id = VALUES(template_id)`,
      [templateId, email],
    )
  ).affected > 0

/** @returns false when they did not look after it */
export const removeCoDesigner = async (
  database: Database,
  templateId: number,
  email: string,
): Promise<boolean> =>
  (
    await change(
      database,
      `DELETE FROM template_designers
       WHERE template_id = ? AND person_id = (SELECT people.id FROM people WHERE people.email = ?)`,
      [templateId, email],
    )
  ).affected > 0

/**
 * Tells the others who look after a template what somebody changed; once, as long as they have not put it away. For who does
 * not want to be told, the message counts as read.
 */
export const tellCoDesigners = async (
  database: Database,
  templateId: number,
  by: { email: string },
  { subject, body }: { subject: string; body: string },
): Promise<void> => {
  await change(
    database,
    `INSERT INTO messages (recipient, template_id, sent_at, subject, body, read_at)
     SELECT people.email, ?, ${institutionNow}, ?, ?,
       IF(
         JSON_VALUE(people.preferences, '$.tellOfTemplates') IN ('0', 'false'), ${institutionNow},
           NULL
       )
     FROM template_designers
     JOIN people ON people.id = template_designers.person_id
     WHERE template_designers.template_id = ?
       AND people.email <> ?
       AND people.deactivated_at IS NULL
       AND NOT EXISTS (
         SELECT 1
         FROM messages AS told
         WHERE told.template_id = ?
           AND told.recipient = people.email
           AND told.subject = ?
           AND told.read_at IS NULL
       )`,
    [
      templateId,
      subject.slice(0, 300),
      body.slice(0, 4000),
      templateId,
      by.email,
      templateId,
      subject.slice(0, 300),
    ],
  )
}
