import type { Pool } from 'mysql2/promise'

/**
 * A past for the demo, which begins in the middle of a term: courses were made a fortnight before it opened, became what they are now
 * on days that differ from course to course, and findings have been there for a while. All of it is invented.
 */
export const inventHistory = async (pool: Pool, opening: string): Promise<void> => {
  await spreadDays(pool, opening)
  await beginBefore(pool, opening)
  await ageFindings(pool)
  await editBefore(pool, opening)
  await leaveRest(pool, opening)
}

const spreadDays = (pool: Pool, opening: string) =>
  pool.execute(
    `UPDATE readiness_changes
     SET day = DATE_ADD(?, INTERVAL MOD(course_id * 7, 24) - 10 DAY)`,
    [opening],
  )
const beginBefore = (pool: Pool, opening: string) =>
  pool.execute(
    `INSERT INTO readiness_changes (course_id, day, readiness, open_musts, open_shoulds)
     SELECT course_id, DATE_SUB(?, INTERVAL 14 DAY), 'not-ready', open_musts + 3, open_shoulds + 4
     FROM readiness_changes`,
    [opening],
  )
const ageFindings = (pool: Pool) =>
  pool.execute(
    `UPDATE finding_spells
     SET came = DATE_SUB(came, INTERVAL MOD(id * 5, 20) DAY)`,
  )

/** Three quarters of what was edited in a course, on three days. */
const editBefore = (pool: Pool, opening: string) =>
  pool.execute(
    `INSERT INTO course_edits (course_id, day, edits)
     SELECT course_id, DATE_ADD(?, INTERVAL MOD(course_id * 7 + part * 9, 24) - 10 DAY),
       CEIL(edits / 4)
     FROM course_edits
     JOIN (SELECT 1 AS part UNION ALL SELECT 2 UNION ALL SELECT 3) AS parts`,
    [opening],
  )
const leaveRest = (pool: Pool, opening: string) =>
  pool.execute(
    `UPDATE course_edits
     SET edits = GREATEST(1, edits - 3 * CEIL(edits / 4))
     WHERE day > DATE_ADD(?, INTERVAL 13 DAY)`,
    [opening],
  )
