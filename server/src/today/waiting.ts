import type { WaitingLine } from '@wickerframe/contract'
import { anyOf, firstRow, rowsOf, type Database } from '@wickerframe/storage'
import { toldDaysBefore } from '../waivers/tellOfEnds.ts'

/** A line of what waits, by the course it is in. */
export type Waiting = Pick<WaitingLine, 'what' | 'who' | 'about' | 'says' | 'on'> & {
  courseId: number
}

/**
 * What waits for a designer in some courses: waivers asked for, answers to what was raised, promises whose day has passed, and
 * waivers that end within a fortnight; in this order, in each the oldest first.
 */
export const listWaiting = (
  database: Database,
  courseIds: readonly number[],
  today: string,
): Promise<Waiting[]> => {
  const ids = anyOf(courseIds)
  return rowsOf(
    database,
    `SELECT what, courseId, who, about, says, \`on\`
     FROM (
       SELECT 1 AS place, 'waiver-asked' AS what, course_id AS courseId, asked_by AS who,
         reason AS about, '' AS says, until_date AS \`on\`, asked_at AS at
       FROM waivers
       WHERE state = 'asked' AND course_id IN ${ids.sql}
       UNION ALL
       SELECT 2, 'answer', course_id, owner, message, answer, NULL, answered_at
       FROM follow_ups
       WHERE state = 'answered' AND course_id IN ${ids.sql}
       UNION ALL
       SELECT 3, 'promise-passed', course_id, owner, message, answer, promised_for, answered_at
       FROM follow_ups
       WHERE state = 'promised' AND promised_for < ? AND course_id IN ${ids.sql}
       UNION ALL
       SELECT 4, 'waiver-ends', course_id, asked_by, reason, '', until_date, asked_at
       FROM waivers
       WHERE state = 'approved'
         AND until_date BETWEEN ? AND DATE_ADD(?, INTERVAL ${toldDaysBefore} DAY)
         AND course_id IN ${ids.sql}
     ) AS waiting
     ORDER BY place, at, courseId`,
    [...ids.values, ...ids.values, today, ...ids.values, today, today, ...ids.values],
  )
}

/** How many waivers for many courses end within a fortnight. */
export const countWideEnds = async (database: Database, today: string): Promise<number> =>
  (
    await firstRow<{ ends: number }>(
      database,
      `SELECT COUNT(*) AS ends
       FROM waivers
       WHERE course_id IS NULL
         AND state = 'approved'
         AND until_date BETWEEN ? AND DATE_ADD(?, INTERVAL ${toldDaysBefore} DAY)`,
      [today, today],
    )
  )?.ends ?? 0
