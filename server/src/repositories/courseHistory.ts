import { daysBetween, localDateOf, type CourseHistory } from '@wickerframe/core'
import { firstRow, rowsOf, type Database } from '@wickerframe/storage'
import type { StoredCourse } from './courses.ts'
import { instantOfRow } from './moment.ts'

/**
 * What is known of a course besides its snapshot: deployments, versions, courses beside it, its age.
 * @param recordedParts how many modules and items the deployments recorded as made
 */
export const courseHistory = async (database: Database, { summary, facts, version }: StoredCourse, today: string, recordedParts: number): Promise<CourseHistory> => {
  const timeZone = facts.term.timeZone
  const last = await firstRow<{ at: string | null }>(database, "SELECT MAX(deployed_at) AS `at` FROM deployments WHERE course_id = ? AND undone_by IS NULL AND mode <> 'undo'", [summary.id])
  const deployed = last?.at ? localDateOf(instantOfRow(last.at), timeZone) : null
  const beside = await rowsOf<{ name: string; classSection: string }>(
    database,
    `SELECT CONCAT(courses.code, ' ', courses.title, ' (', courses.platform_id, ')') AS name, theirs.name AS classSection
     FROM courses FORCE INDEX (courses_by_code)
     STRAIGHT_JOIN class_sections AS theirs ON theirs.course_id = courses.id
     STRAIGHT_JOIN class_sections AS own ON own.course_id = ? AND own.name = theirs.name
     WHERE courses.term_code = ? AND courses.code = ? AND courses.status = 'teaching' AND courses.id <> ?
     ORDER BY courses.id, theirs.name LIMIT 20`,
    [summary.id, summary.term, summary.code, summary.id],
  )
  const preparing = await firstRow<{ name: string }>(
    database,
    `SELECT courses.title AS name FROM courses FORCE INDEX (courses_by_code)
     STRAIGHT_JOIN course_instructors AS theirs ON theirs.course_id = courses.id
     STRAIGHT_JOIN course_instructors AS mine ON mine.course_id = ? AND mine.email = theirs.email
     WHERE courses.term_code = ? AND courses.code = ? AND courses.status = 'preparing' AND courses.id <> ? LIMIT 1`,
    [summary.id, summary.term, summary.code, summary.id],
  )
  return {
    checkOnly: summary.state === 'checked-only',
    deployedOn: deployed,
    deployedVersion: deployed === null ? null : version,
    newestVersion: summary.template?.newest ?? null,
    recordedParts,
    preparing: preparing?.name ?? null,
    sameClassSection: summary.status === 'teaching' ? beside : [],
    readDaysAgo: summary.readAt === null ? null : Math.max(0, daysBetween(localDateOf(summary.readAt, timeZone), today)),
  }
}
