import { change, institutionNow, rowsOf, type Database } from '@wickerframe/storage'
import { tellOfCourse } from '../messages/messages.ts'

/** So many days before its last one it is told of a waiver that it ends. */
export const toldDaysBefore = 14
const toldAtOnce = 50

/** Tells whoever asked for a waiver of a course, once and a fortnight before, that it ends. @param today of the institution */
export const tellOfEnds = async (database: Database, today: string): Promise<void> => {
  for (const { id, course, title, email, last, reason } of await ending(database, today)) {
    await tellOfCourse(database, email, course, {
      subject: `A waiver in ${title} ends on ${last}`,
      body: `Its reason was: ${reason} What it excuses is open again from the day after; mend it by then, or ask for another one.`,
    })
    await markTold(database, id)
  }
}

const ending = (database: Database, today: string) =>
  rowsOf<{
    id: number
    course: number
    title: string
    email: string
    last: string
    reason: string
  }>(
    database,
    `SELECT waivers.id, courses.id AS course, CONCAT(courses.code, ' ', courses.title) AS title,
       waivers.asked_by AS email, waivers.until_date AS last, waivers.reason
     FROM waivers
     JOIN courses ON courses.id = waivers.course_id
     WHERE waivers.state = 'approved'
       AND waivers.end_told_at IS NULL
       AND waivers.until_date BETWEEN ? AND DATE_ADD(?, INTERVAL ${toldDaysBefore} DAY)
     ORDER BY waivers.id
     LIMIT ?`,
    [today, today, String(toldAtOnce)],
  )
const markTold = (database: Database, id: number) =>
  change(
    database,
    `UPDATE waivers
     SET end_told_at = ${institutionNow}
     WHERE id = ?`,
    [id],
  )
